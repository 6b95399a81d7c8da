<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Locks on files, for all processes of one machine.
 *
 * The system lets go of them when the last process that has the files open is gone, however it ended; worker processes
 * inherit them, so that no run starts while an orphan of a killed one still writes.
 */
final readonly class FileLocks implements Locks
{
    public function __construct(private string $directory)
    {
    }

    public function acquire(string ...$names): ?HeldLock
    {
        if (! is_dir($this->directory) && ! @mkdir($this->directory, 0700, true) && ! is_dir($this->directory)) {
            throw StoreFailure::writing($this->directory);
        }
        $held = new HeldLock([]);
        $names = array_values(array_unique($names));
        sort($names); // In one order everywhere, so that two that want the same names do not both go without.
        foreach ($names as $name) {
            $file = $this->file($name);
            $stream = @fopen($file, 'c');
            if ($stream === false) {
                $held->release();
                throw StoreFailure::writing($file);
            }
            $held = new HeldLock([...$held->streams, $stream]);
            if (! flock($stream, LOCK_EX | LOCK_NB)) {
                $held->release();

                return null;
            }
        }

        return $held;
    }

    private function file(string $name): string
    {
        $plain = preg_match('/\A[a-z0-9-]{1,80}\z/', $name) === 1
            ? $name
            : 'of-'.substr(hash('sha256', $name), 0, 32);

        return "$this->directory/$plain.lock";
    }
}
