<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/** The system writes no file of this process beyond a size for a while, as on a disk that is full. */
final class FullDisk
{
    /**
     * @template T
     *
     * @param  int  $bytes  that any file may have
     * @param  \Closure(): T  $work
     * @return T
     */
    public static function during(int $bytes, \Closure $work): mixed
    {
        pcntl_signal(SIGXFSZ, SIG_IGN); // Else the process would end; so it is told that it cannot write.
        self::limit("$bytes:");
        try {
            return $work();
        } finally {
            self::limit('unlimited:');
            pcntl_signal(SIGXFSZ, SIG_DFL);
        }
    }

    /** Of what is written by this process; what it starts meanwhile has the same. */
    private static function limit(string $limit): void
    {
        exec('prlimit --pid '.getmypid()." --fsize=$limit 2>&1", $said, $status);
        $status === 0 || throw new RuntimeException(implode("\n", $said));
    }
}
