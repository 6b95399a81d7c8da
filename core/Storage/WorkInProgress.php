<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Processes that have put contents into the store which nothing refers to yet, and since when.
 *
 * Each has a file open under a lock that the system lets go of when the process is gone, however it ended. What clears
 * the store spares everything younger than the oldest of them: a backup that takes two days, or one under which the
 * clock jumps, loses nothing.
 */
final class WorkInProgress
{
    /** @var resource|null */
    private $file;

    private string $name = '';

    public function __construct(private readonly string $directory)
    {
    }

    /** From now on, unless it has begun already. */
    public function begin(): void
    {
        if (is_resource($this->file)) {
            return;
        }
        DiskObjects::make($this->directory);
        do {
            $this->name = "$this->directory/".getmypid().'-'.bin2hex(random_bytes(6));
            $file = @fopen($this->name, 'xb');
            if ($file === false || ! flock($file, LOCK_SH)) {
                throw StoreFailure::writing($this->name);
            }
            $this->file = $file;
            clearstatcache(true, $this->name);
        } while (! is_file($this->name)); // Looked at before it was locked, and taken for that of somebody gone.
    }

    /** What was put into the store is referred to by now. */
    public function end(): void
    {
        if (is_resource($this->file)) {
            @unlink($this->name);
            fclose($this->file);
        }
        $this->file = null;
    }

    /** @return int|null seconds since 1970; null where nobody is at work */
    public function oldest(): ?int
    {
        $oldest = null;
        foreach (glob("$this->directory/*") ?: [] as $name) {
            $file = @fopen($name, 'rb');
            if ($file === false) {
                continue;
            }
            if (flock($file, LOCK_EX | LOCK_NB)) {
                @unlink($name); // Whoever had it is gone.
            } else {
                $since = fstat($file)['mtime'] ?? 0;
                $oldest = min($oldest ?? $since, $since);
            }
            fclose($file);
        }

        return $oldest;
    }

    public function __destruct()
    {
        $this->end();
    }
}
