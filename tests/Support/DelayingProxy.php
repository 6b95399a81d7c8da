<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/** A way to servers of this machine that takes as long as one through a network, from another address of loopback. */
final class DelayingProxy
{
    public const ADDRESS = '127.0.0.2';

    /** @var resource */
    private $process;

    /**
     * @param  int  $milliseconds  there and back
     * @param  list<int>  $ports
     */
    public function __construct(int $milliseconds, array $ports)
    {
        $process = proc_open(
            [
                PHP_BINARY,
                dirname(__DIR__, 2).'/benchmarks/delaying-proxy.php',
                (string) $milliseconds,
                '127.0.0.1',
                self::ADDRESS,
                ...array_map(strval(...), $ports),
            ],
            [['file', '/dev/null', 'r'], ['pipe', 'w']],
            $pipes,
        );
        $said = $process === false ? '' : fgets($pipes[1]);
        $this->process = $process !== false && $said === "ready\n"
            ? $process
            : throw new RuntimeException("The proxy did not start: $said");
    }

    public function stop(): void
    {
        Processes::end($this->process);
    }
}
