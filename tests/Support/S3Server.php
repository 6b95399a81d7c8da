<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Storage\S3Settings;
use RuntimeException;

/** A store that speaks S3 and that nobody here has written, on a port of loopback. */
final class S3Server
{
    public readonly int $port;

    /** @var resource|null */
    private $process;

    public function __construct(private readonly string $directory)
    {
        $this->port = FreePort::find();
        $this->start();
    }

    public function start(): void
    {
        $program = dirname(__DIR__, 2).'/var/test/node/node_modules/s3rver/bin/s3rver.js';
        is_file($program) || throw new RuntimeException('Run ./test once; it fetches s3rver.');
        $log = ['file', "$this->directory/log", 'a'];
        $process = proc_open(
            [
                'node',
                $program,
                '--directory',
                $this->directory,
                '--address',
                '127.0.0.1',
                '--port',
                (string) $this->port,
                '--configure-bucket',
                'contents',
            ],
            [['file', '/dev/null', 'r'], $log, $log],
            $pipes,
        );
        $this->process = $process === false ? throw new RuntimeException('s3rver did not start.') : $process;
        $until = microtime(true) + 15;
        while (($socket = @stream_socket_client("tcp://127.0.0.1:$this->port")) === false) {
            microtime(true) < $until && proc_get_status($this->process)['running']
                ? usleep(10_000)
                : throw new RuntimeException('It did not come up: '.file_get_contents("$this->directory/log"));
        }
        fclose($socket);
    }

    public function settings(string $key = 'S3RVER'): S3Settings
    {
        return new S3Settings(
            "http://127.0.0.1:$this->port",
            'us-east-1',
            'contents',
            'cellarium/',
            $key,
            new Secret('S3RVER'),
        );
    }

    public function stop(): void
    {
        if ($this->process !== null) {
            proc_terminate($this->process, SIGKILL);
            proc_close($this->process);
        }
        $this->process = null;
    }
}
