<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * One piece of work at a time on something that has a name, or several names, by locks on files.
 *
 * The system lets go of them when the last process that has the files open is gone, however it ended; worker processes
 * inherit them, so that no run starts while an orphan of a killed one still writes.
 */
final class NamedLock
{
    /** @param  list<resource>  $streams */
    private function __construct(public readonly array $streams)
    {
    }

    /** @return self|null null when something else holds one of the names; none is held then */
    public static function tryFor(string $directory, string ...$names): ?self
    {
        if (! is_dir($directory) && ! @mkdir($directory, 0700, true) && ! is_dir($directory)) {
            throw StoreFailure::writing($directory);
        }
        $lock = new self([]);
        $names = array_values(array_unique($names));
        sort($names); // In one order everywhere, so that two that want the same names do not both go without.
        foreach ($names as $name) {
            // Names may hold anything, a host's and a path among it.
            $file = "$directory/"
                .(preg_match('/\A[a-z0-9-]{1,80}\z/', $name) === 1
                    ? $name
                    : 'of-'.substr(hash('sha256', $name), 0, 32))
                .'.lock';
            $stream = @fopen($file, 'c');
            if ($stream === false) {
                $lock->release();
                throw StoreFailure::writing($file);
            }
            $lock = new self([...$lock->streams, $stream]);
            if (! flock($stream, LOCK_EX | LOCK_NB)) {
                $lock->release();

                return null;
            }
        }

        return $lock;
    }

    public function release(): void
    {
        foreach ($this->streams as $stream) {
            ! is_resource($stream) ?: fclose($stream);
        }
    }
}
