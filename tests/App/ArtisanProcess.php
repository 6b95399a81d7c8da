<?php

declare(strict_types=1);

namespace Tests\App;

use RuntimeException;

/** A console command in a process of its own, on the database of the tests. */
final class ArtisanProcess
{
    /** @var resource */
    private $process;

    /** @var resource */
    private $output;

    /**
     * @param  list<string>  $arguments
     * @param  array<string, string>  $settings
     * @param  int|null  $largestFile bytes after which the system refuses to write on in any file, as on a full disk
     */
    public function __construct(array $arguments, array $settings, ?int $largestFile = null)
    {
        $command = [PHP_BINARY, dirname(__DIR__, 2).'/artisan', ...$arguments];
        if ($largestFile !== null) {
            $command = [
                'bash',
                '-c',
                "trap '' XFSZ; ulimit -f ".intdiv($largestFile, 1024).'; exec "$0" "$@"',
                ...$command,
            ];
        }
        $this->output = tmpfile() ?: throw new RuntimeException('There is no room for the output.');
        $process = proc_open(
            $command,
            [1 => $this->output, 2 => $this->output],
            $pipes,
            null,
            $settings + ['APP_KEY' => (string) config('app.key')] + getenv(),
        );
        $this->process = $process === false ? throw new RuntimeException('The process did not start.') : $process;
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

    /** @return array{int, string} exit status and all it said */
    public function finish(): array
    {
        $status = proc_close($this->process);
        rewind($this->output);

        return [$status, (string) stream_get_contents($this->output)];
    }
}
