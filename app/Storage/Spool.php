<?php

declare(strict_types=1);

namespace App\Storage;

use App\Failure\Problem;
use App\Text\Amount;
use Illuminate\Support\Facades\Crypt;

/**
 * Files of clients' servers that a worker has fetched for one person to look at; gone within the hour.
 *
 * What a browser shows lies there as it is, so that the web server answers ranges of it; texts, in which passwords may
 * stand, are sealed.
 */
final readonly class Spool
{
    public const SECONDS = 3600;

    /** Within these a claim on room is locked by whoever makes it. */
    private const CLAIM_SECONDS = 10;

    /** Bytes that stay free beside what is spooled: a full disk stops more than a look. */
    private const LEFT_FREE = 200_000_000;

    public function __construct(private string $directory)
    {
    }

    /** A name that nobody can guess, for what is read while it comes. */
    public static function newName(): string
    {
        return bin2hex(random_bytes(16));
    }

    /**
     * @param  int  $size  bytes that it is listed with
     * @param  \Closure(resource): mixed  $read  writes it
     * @param  string|null  $name  a newName() by which it is read while it comes
     * @return string its name here
     *
     * @throws Problem where there is no room for it
     */
    public function put(int $size, \Closure $read, ?string $name = null): string
    {
        $this->room($size);
        $name ??= self::newName();
        $file = fopen("$this->directory/$name.part", 'x+b') ?: throw self::unwritable($this->directory);
        try {
            // Others count what is still to come as taken, for as long as this process has it open.
            $claim = fopen("$this->directory/$name.size", 'xbe') ?: throw self::unwritable($this->directory);
            flock($claim, LOCK_EX) && fwrite($claim, (string) $size) !== false && fflush($claim)
                || throw self::unwritable($this->directory);
            $read($file);
            fclose($file) || throw self::unwritable($this->directory);
            rename("$this->directory/$name.part", "$this->directory/$name") || throw self::unwritable($this->directory);
        } finally {
            @unlink("$this->directory/$name.part");
            @unlink("$this->directory/$name.size");
        }

        return $name;
    }

    /**
     * To be read while it comes, and by that kept coming, see isRead().
     *
     * @return resource|null null where it is gone by now
     */
    public function reader(string $name)
    {
        if (preg_match('/\A[0-9a-f]{32}\z/', $name) !== 1) {
            return null;
        }
        $file = @fopen("$this->directory/$name.part", 'rbe') ?: @fopen("$this->directory/$name", 'rbe');
        if ($file === false) {
            return null;
        }
        flock($file, LOCK_SH);

        return $file;
    }

    /** Whether somebody reads at this moment what still comes. */
    public function isRead(string $name): bool
    {
        $file = @fopen("$this->directory/$name.part", 'rbe');
        $isFree = $file !== false && flock($file, LOCK_EX | LOCK_NB);
        $file === false || fclose($file);

        return ! $isFree;
    }

    /** @throws Problem where there is no room for it */
    public function putSealed(string $bytes): string
    {
        $sealed = Crypt::encryptString($bytes);

        return $this->put(strlen($sealed), static fn ($file): int => (int) fwrite($file, $sealed));
    }

    /** Null where it is gone by now. */
    public function sealed(string $name): ?string
    {
        $file = $this->file($name);
        $sealed = $file === null ? false : @file_get_contents($file);

        return $sealed === false ? null : Crypt::decryptString($sealed);
    }

    /** Null where it is gone by now. */
    public function file(string $name): ?string
    {
        $file = "$this->directory/$name";

        return preg_match('/\A[0-9a-f]{32}\z/', $name) === 1 && is_file($file) ? $file : null;
    }

    /** @return int how many were removed whose hour is over */
    public function sweep(): int
    {
        $removed = 0;
        clearstatcache();
        foreach (glob("$this->directory/*") ?: [] as $file) {
            $age = time() - (int) @filemtime($file);
            // A clock that was put back keeps nothing for longer.
            if ($age >= self::SECONDS || $age < -self::SECONDS) {
                $removed += (int) @unlink($file);
            }
        }

        return $removed;
    }

    private function room(int $size): void
    {
        is_dir($this->directory) || @mkdir($this->directory, 0700, true);
        $free = @disk_free_space($this->directory);
        $free !== false || throw self::unwritable($this->directory);
        foreach (glob("$this->directory/*.size") ?: [] as $file) {
            $part = substr($file, 0, -strlen('size')).'part';
            if (self::isLeft($file)) {
                // Whoever wrote it was killed.
                @unlink($part);
                @unlink($file);

                continue;
            }
            $come = @filesize($part);
            $free -= $come === false ? 0 : max(0, (int) @file_get_contents($file) - $come);
        }
        $free - $size >= self::LEFT_FREE || throw new Problem(
            'There is no room on the disk of Cellarium for '.Amount::bytes($size).'. Make room there, then try again.',
        );
    }

    private static function isLeft(string $claim): bool
    {
        $file = @fopen($claim, 'rbe');
        // One that was made just now may not be locked yet.
        $isOld = abs(time() - (int) @filemtime($claim)) > self::CLAIM_SECONDS;
        $isLeft = $file !== false && $isOld && flock($file, LOCK_EX | LOCK_NB);
        $file === false || fclose($file);

        return $isLeft;
    }

    private static function unwritable(string $directory): Problem
    {
        return new Problem("$directory cannot be written to. Nothing was fetched; make that possible, then try again.");
    }
}
