<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use RuntimeException;

/**
 * A plain FTP server of a hostile host: it lists a file of 30 bytes that has no end, and a directory "slow" whose
 * listing comes a byte at a time, for ever.
 */
final class EndlessFtpServer
{
    private const PROGRAM = <<<'PHP'
        $server = stream_socket_server('tcp://127.0.0.1:0');
        echo substr(strrchr(stream_socket_get_name($server, false), ':'), 1), "\n";
        while ($client = stream_socket_accept($server, 600)) {
            fwrite($client, "220 Welcome\r\n");
            $data = null;
            while (($line = fgets($client)) !== false) {
                [$verb, $word] = explode(' ', trim($line), 2) + [1 => ''];
                if (in_array(strtoupper($verb), ['MLSD', 'RETR'], true)) {
                    fwrite($client, "150 Here it comes\r\n");
                    $to = stream_socket_accept($data, 10);
                    $isSlow = str_contains($word, 'slow');
                    if (strtoupper($verb) === 'MLSD' && ! $isSlow) {
                        fwrite($to, "type=file;size=30;modify=20261101120000; endless.html\r\n");
                    } else {
                        $piece = $isSlow ? 'x' : str_repeat('x', 65536);
                        while (@fwrite($to, $piece)) {
                            $isSlow && usleep(200_000);
                        }
                    }
                    fclose($to);
                    @fwrite($client, "226 Done\r\n");
                    continue;
                }
                if (strtoupper($verb) === 'PASV') {
                    $data = stream_socket_server('tcp://127.0.0.1:0');
                    $port = (int) substr(strrchr(stream_socket_get_name($data, false), ':'), 1);
                    fwrite($client, sprintf("227 Passive (127,0,0,1,%d,%d)\r\n", $port >> 8, $port & 255));
                    continue;
                }
                fwrite($client, match (strtoupper($verb)) {
                    'USER' => "331 Password\r\n",
                    'PASS' => "230 In\r\n",
                    'PWD' => "257 \"/\"\r\n",
                    'SIZE' => "213 30\r\n",
                    'QUIT' => "221 Bye\r\n",
                    'EPSV' => "500 Not known\r\n",
                    default => "200 Fine\r\n",
                });
            }
            fclose($client);
        }
        PHP;

    /** @var resource */
    private $process;

    private readonly int $port;

    public function __construct()
    {
        $process = proc_open([PHP_BINARY, '-d', 'display_errors=0', '-r', self::PROGRAM], [1 => ['pipe', 'w']], $pipes);
        $line = $process === false ? false : fgets($pipes[1]);
        if ($process === false || $line === false) {
            throw new RuntimeException('The server did not start.');
        }
        $this->process = $process;
        $this->port = (int) $line;
    }

    public function endpoint(): Endpoint
    {
        return new Endpoint('127.0.0.1', $this->port, Protocol::Ftp, 'harbour', new Secret('x'));
    }

    public function stop(): void
    {
        proc_terminate($this->process, SIGKILL);
        proc_close($this->process);
    }
}
