<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use RuntimeException;

final class StoreFailure extends RuntimeException
{
    private function __construct(
        public readonly StoreFault $fault,
        string $message,
        ?\Throwable $previous = null,
    ) {
        parent::__construct($message, 0, $previous);
    }

    public static function writing(string $what): self
    {
        return new self(
            StoreFault::NotWritten,
            "$what could not be written. Check the space and permissions of the disk that Cellarium keeps its files "
                .'on.',
        );
    }

    public static function reading(string $file): self
    {
        return new self(StoreFault::NotRead, "$file could not be read. Check that it is there, and its permissions.");
    }

    public static function missing(string $sha256): self
    {
        return new self(
            StoreFault::Missing,
            "Contents are not in the store any more (SHA-256 $sha256). Of which file of which site they are, and of "
                .'what day, stands on the page of the store and in what cellarium:verify says, which fetches '
                .'them again from a live site that still has them.',
        );
    }

    public static function damaged(string $path): self
    {
        return new self(
            StoreFault::Damaged,
            "The stored copy of $path is gone, or does not have the bytes it had when it was taken.",
        );
    }

    public static function unreachable(string $doing, \Throwable $why): self
    {
        return new self(
            StoreFault::Unreachable,
            "The store did not answer while $doing: {$why->getMessage()}. Nothing is known of what it holds; see that "
                .'it runs and can be reached, then try again.',
            $why,
        );
    }

    /** @param  int  $newest  that is understood here */
    public static function newer(string $what, int $format, int $newest): self
    {
        return new self(
            StoreFault::NotRead,
            "$what was written by a newer version of Cellarium (format $format, this one reads up to $newest). "
                .'Nothing is wrong with it; start that version, or a later one.',
        );
    }

    /** @param  string  $name  of a backup on its shelf */
    public static function damagedList(string $name): self
    {
        return new self(
            StoreFault::Damaged,
            "The list of what the backup $name holds is missing, cut off or damaged. Its contents may be in others; "
                .'choose an earlier or a later one, or bring the list back from a backup of Cellarium itself.',
        );
    }

    public static function noMark(string $directory): self
    {
        return new self(
            StoreFault::NotOurs,
            "$directory does not have the mark of this installation: it is empty, or its disk is not mounted. Nothing "
                .'was started, removed or written there. Mount the disk that belongs there, or put back what lay in '
                .'it with its file '.Mark::FILE.'; if it is really meant to begin empty, say so with '
                ."php artisan cellarium:marks --accept=$directory",
        );
    }

    public static function otherMark(string $directory): self
    {
        return new self(
            StoreFault::NotOurs,
            "$directory has the mark of another installation than CELLARIUM_IDENTITY in .env names. Nothing was "
                .'started, removed or written there. Mount the disk that belongs there, or put back the .env that '
                .'belongs to it.',
        );
    }

    /** @param  bool  $isMarked  whether it has the mark of another installation */
    public static function otherStore(bool $isMarked): self
    {
        return new self(
            StoreFault::NotOurs,
            'The store over S3 '.($isMarked ? 'has the mark of another installation' : 'has no mark').'. Nothing was '
                .'started, removed or written there. See that CELLARIUM_S3_BUCKET and CELLARIUM_S3_PREFIX name the one '
                .'that belongs to this installation; if it does, say so with php artisan cellarium:marks --accept=s3',
        );
    }

    /** The same, told of a file by the path people know; only missing and damaged are of one file. */
    public function of(string $path): self
    {
        return $this->fault->isOfOneFile() ? self::damaged($path) : $this;
    }

    /** @param  string  $id  of the key */
    public static function keyMissing(string $id): self
    {
        return new self(
            StoreFault::KeyMissing,
            "The key $id, with which contents were sealed, is not in the key file. Put back the copy of the key file "
                .'that was kept elsewhere; without it these contents cannot be read by anybody.',
        );
    }

    public static function noKeyFile(string $file): self
    {
        return new self(
            StoreFault::KeyMissing,
            "The key file $file is not there, cannot be read, or is not one. Put back the copy that was kept "
                .'elsewhere; without it the contents of packages and backups cannot be read by anybody.',
        );
    }
}
