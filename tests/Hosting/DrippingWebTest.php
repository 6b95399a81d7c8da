<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Web\CurlWebClient;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** A web server that drips is waited for twice, and then no longer as long. */
final class DrippingWebTest extends TestCase
{
    use Scratch;

    private const PROGRAM = <<<'PHP'
        $server = stream_socket_server('tcp://127.0.0.1:0');
        echo substr(strrchr(stream_socket_get_name($server, false), ':'), 1), "\n";
        while ($client = stream_socket_accept($server, 600)) {
            $asked = strtok((string) fgets($client), ' ');
            fwrite($client, "HTTP/1.1 200 OK\r\nContent-Length: 1000000\r\nConnection: close\r\n\r\n");
            for ($drops = 0; @fwrite($client, 'x'); $drops++) {
                usleep(50_000);
            }
            file_put_contents($argv[1], "$drops\n", FILE_APPEND);
            fclose($client);
        }
        PHP;

    public function test_the_third_page_is_waited_for_less(): void
    {
        $counted = $this->directory().'/drops';
        $process = proc_open(
            [PHP_BINARY, '-d', 'display_errors=0', '-r', self::PROGRAM, '--', $counted],
            [1 => ['pipe', 'w']],
            $pipes,
        );
        self::assertIsResource($process);
        try {
            $port = (int) fgets($pipes[1]);
            $client = new CurlWebClient(static fn (): string => '127.0.0.1', seconds: 4, impatientSeconds: 1);
            foreach (range(1, 4) as $page) {
                $answer = $client->fetch("http://site.example:$port/$page.html");
                self::assertSame(0, $answer->status);
                self::assertNotSame('', (string) $answer->error);
                while (substr_count((string) @file_get_contents($counted), "\n") < $page) {
                    usleep(10_000); // It notices that nobody listens any more.
                }
            }
        } finally {
            proc_terminate($process, SIGKILL);
            proc_close($process);
        }
        [$one, $two, $three, $four] = array_map(intval(...), file($counted) ?: []);
        self::assertGreaterThan($three + $four, $one + $two);
    }
}
