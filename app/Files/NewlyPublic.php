<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Models\Account;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileChangeKind;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Package\Contents\SensitiveNames;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/** Steps that would put a secret where visitors come, by moving, copying or renaming what lies at the host already. */
final class NewlyPublic
{
    /**
     * @param  list<FileChange>  $steps
     *
     * @throws Problem
     */
    public static function mustNotBe(Account $account, array $steps): void
    {
        foreach ($steps as $step) {
            $step->to === null || self::look($account, $step->path, $step->to);
        }
    }

    /**
     * The folders that come to visitors as a whole; what lies in them is not known by their name.
     *
     * @param  list<FileChange>  $steps
     * @return list<FileChange>
     */
    public static function folders(Account $account, array $steps): array
    {
        return array_values(array_filter(
            $steps,
            static fn (FileChange $step): bool => $step->kind === FileChangeKind::Rename
                && $step->to !== null
                && $step->seen?->kind === EntryKind::Directory
                && self::addressOf($account, $step->to) !== null
                && self::addressOf($account, $step->path) === null,
        ));
    }

    /** @throws Problem where it is a secret that visitors could not fetch before */
    public static function look(Account $account, RemotePath $from, RemotePath $to): void
    {
        $address = self::isSecret($to) ? self::addressOf($account, $to) : null;
        if ($address !== null && (! self::isSecret($from) || self::addressOf($account, $from) === null)) {
            throw new Problem(
                "{$to->name()} holds what nobody should be able to fetch, by its name, and everybody could at "
                    ."$address. Nothing was changed. Put it above the document root; a maintainer who wants it there "
                    .'all the same uploads it, with a reason.',
            );
        }
    }

    private static function addressOf(Account $account, RemotePath $path): ?string
    {
        foreach ($account->sites as $site) {
            $address = $site->addresses()->of($path);
            if ($address !== null) {
                return $address;
            }
        }

        return null;
    }

    private static function isSecret(RemotePath $path): bool
    {
        $below = RelativePath::tryFromString(ltrim($path->toString(), '/'));

        return $below !== null && SensitiveNames::isSecret($below);
    }
}
