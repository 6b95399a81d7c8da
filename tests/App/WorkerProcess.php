<?php

declare(strict_types=1);

namespace Tests\App;

use RuntimeException;

/** A real queue worker in a process of its own, on the database of the tests. */
final class WorkerProcess
{
    /** @var resource */
    private $process;

    /** @param  array<string, string>  $settings */
    public function __construct(array $settings)
    {
        $process = proc_open(
            [PHP_BINARY, dirname(__DIR__, 2).'/artisan', 'queue:work', '--stop-when-empty', '--tries=1', '--timeout=0', '--quiet'],
            [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']], $pipes, null, $settings + ['APP_KEY' => (string) config('app.key')] + getenv(),
        );
        $this->process = $process === false ? throw new RuntimeException('The worker did not start.') : $process;
    }

    public function runs(): bool
    {
        return proc_get_status($this->process)['running'];
    }

    /** SIGKILL, which nothing can catch. @return bool whether it was still running */
    public function kill(): bool
    {
        $running = $this->runs();
        proc_terminate($this->process, SIGKILL);
        proc_close($this->process);

        return $running;
    }

    public function finish(): void
    {
        proc_close($this->process);
    }
}
