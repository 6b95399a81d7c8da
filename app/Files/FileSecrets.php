<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Models\GuardedFile;
use Cellarium\Core\File\FoundFile;
use Cellarium\Core\Path\RemotePath;

/** Files in which passwords may stand, shown to those alone who may see passwords; see GuardedFile. */
final class FileSecrets
{
    /** @param  string|null  $bytes  of its beginning; null where only its name is known */
    public static function areHidden(int $account, RemotePath $file, ?string $bytes = null): bool
    {
        return ! GuardedFile::areShown() && GuardedFile::isOneOf($account, $file, $bytes);
    }

    /** Whether the lines that were found in it are for others only. */
    public static function areLinesHidden(int $account, FoundFile $found): bool
    {
        return ! GuardedFile::areShown() && ($found->isSensitive || GuardedFile::isOneOf($account, $found->path));
    }

    /** @throws Problem where they are hidden from whoever looks */
    public static function mayBeSeen(int $account, RemotePath $file, ?string $bytes = null): void
    {
        self::areHidden($account, $file, $bytes) && throw new Problem(
            "Passwords may stand in {$file->name()}. It is shown to those who may see them.",
        );
    }
}
