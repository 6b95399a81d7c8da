<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Models\Account;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\Package\SensitiveNames;
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
            $address = $step->to === null ? null : self::addressOf($account, $step->to);
            $wasPublic = self::addressOf($account, $step->path) !== null && self::isSecret($step->path);
            if ($step->to !== null && $address !== null && ! $wasPublic && self::isSecret($step->to)) {
                throw new Problem(
                    "{$step->to->name()} holds what nobody should be able to fetch, by its name, and everybody could "
                        ."at $address. Nothing was changed. Put it above the document root; a maintainer who wants it "
                        .'there all the same uploads it, with a reason.',
                );
            }
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
