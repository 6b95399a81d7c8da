<?php

declare(strict_types=1);

namespace Tests\Support;

/** Processes that tests have started. */
final class Processes
{
    private const POLITE_SECONDS = 10;

    /**
     * Asked to end, and ended where that is not heard: no test waits for a process for ever.
     *
     * @param  resource  $process  of proc_open()
     */
    public static function end($process): void
    {
        proc_terminate($process);
        $until = hrtime(true) + self::POLITE_SECONDS * 1e9;
        while (proc_get_status($process)['running']) {
            hrtime(true) < $until ? usleep(2000) : proc_terminate($process, SIGKILL);
        }
        proc_close($process);
    }
}
