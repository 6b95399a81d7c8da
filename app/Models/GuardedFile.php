<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\File\FileChangeKind;
use Cellarium\Core\Package\Contents\SensitiveNames;
use Cellarium\Core\Package\SensitiveContent;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Permission;
use Illuminate\Support\Facades\Gate;

/**
 * Files in which passwords stand, or rows of a database: what they say is for those who may see passwords, whichever
 * way it is asked for. A file is one by its name, by the name it came with, or by what it holds.
 */
final class GuardedFile
{
    /** So many times a file is followed back to an earlier name. */
    private const MOST_NAMES = 8;

    /** Whether whoever looks may see what such files say. */
    public static function areShown(): bool
    {
        return Gate::allows(Permission::SeeSecrets->value);
    }

    /** @param  string|null  $bytes  of its beginning; null where only its name is known */
    public static function isOne(RelativePath $path, ?string $bytes = null): bool
    {
        return SensitiveNames::isOne($path) || ($bytes !== null && SensitiveContent::isOne($bytes, $path->name()));
    }

    /** The same of a file of an account, also by the names it had before it was renamed, moved or copied here. */
    public static function isOneOf(int $account, RemotePath $path, ?string $bytes = null): bool
    {
        $name = RelativePath::fromString(ltrim($path->toString(), '/'));
        if (self::isOne($name, $bytes)) {
            return true;
        }
        for ($number = 0; $number < self::MOST_NAMES && $path !== null; $number++) {
            $path = self::cameFrom($account, $path);
            if ($path !== null && SensitiveNames::isOne(RelativePath::fromString(ltrim($path->toString(), '/')))) {
                return true;
            }
        }

        return false;
    }

    /** The name it had before it got this one here; null where it got it otherwise. */
    private static function cameFrom(int $account, RemotePath $path): ?RemotePath
    {
        $version = FileVersion::withoutGlobalScopes()
            ->with('change')
            ->where(['account_id' => $account, 'path_hash' => FileVersion::hash($path)])
            ->whereIn('kind', [FileChangeKind::Rename, FileChangeKind::Copy])
            ->latest('id')
            ->first();

        return $version === null ? null : $version->change->steps()[$version->step]->path ?? null;
    }
}
