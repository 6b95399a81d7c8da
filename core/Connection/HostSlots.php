<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Storage\StoreFailure;

/**
 * Slots for the connections that all processes together have to one host: a locked file for each, freed when its
 * process ends, however it ends.
 */
final readonly class HostSlots
{
    private const LOOK_SECONDS = 0.05;

    /** @param  int  $most  connections to one host at a time, from 1 */
    public function __construct(
        private string $directory,
        private int $most,
    ) {
    }

    /**
     * @param  float  $patience  seconds to wait for one to be freed
     * @return resource|null to be closed when the connection is; null when none was free in time
     *
     * @throws StoreFailure
     */
    public function take(string $host, float $patience)
    {
        if (! is_dir($this->directory) && ! @mkdir($this->directory, 0700, true) && ! is_dir($this->directory)) {
            throw StoreFailure::writing($this->directory);
        }
        $name = substr(hash('sha256', strtolower($host)), 0, 24);
        $until = hrtime(true) / 1e9 + $patience;
        do {
            for ($number = 0; $number < $this->most; $number++) {
                $file = "$this->directory/host-$name-$number.lock";
                $stream = @fopen($file, 'cbe'); // Not for processes started meanwhile: they would go on holding it.
                if ($stream === false) {
                    throw StoreFailure::writing($file);
                }
                if (flock($stream, LOCK_EX | LOCK_NB)) {
                    return $stream;
                }
                fclose($stream);
            }
            $left = $until - hrtime(true) / 1e9;
            $left <= 0 ?: usleep((int) (min($left, self::LOOK_SECONDS) * 1e6));
        } while ($left > 0);

        return null;
    }
}
