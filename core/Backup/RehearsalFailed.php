<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use RuntimeException;

/** A backup could not be brought back as a whole; the message is for people. */
final class RehearsalFailed extends RuntimeException
{
    public static function unpacking(string $path): self
    {
        return new self(
            "$path could not be made in the directory for rehearsals. Look at the room and permissions there, then "
                .'rehearse again; of the backup this says nothing.',
        );
    }

    public static function notForRehearsals(string $directory): self
    {
        return new self(
            "$directory holds something and was never used for rehearsals, so nothing in it was touched. Name an empty "
                .'directory.',
        );
    }

    public static function differs(string $path, ?\Throwable $why = null): self
    {
        return new self(
            "$path came out with other bytes than it had when the backup was taken. Take another backup of the site, "
                .'and see whether an earlier one is whole.',
            0,
            $why,
        );
    }

    public static function page(string $path, string $why): self
    {
        return new self("$path was unpacked as it was, and the web server for rehearsals answered $why.");
    }
}
