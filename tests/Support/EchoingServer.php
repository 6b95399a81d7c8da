<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/** A plain FTP server that refuses every sign-in and repeats the password, in its refusal and in its next greeting. */
final class EchoingServer
{
    private const PROGRAM = <<<'PHP'
        $server = stream_socket_server('tcp://127.0.0.1:0');
        echo substr(strrchr(stream_socket_get_name($server, false), ':'), 1), "\n";
        $heard = 'nothing yet';
        while ($client = stream_socket_accept($server, 600)) {
            fwrite($client, "220 Welcome, the last one here said $heard\r\n");
            while (($line = fgets($client)) !== false) {
                $verb = strtoupper(strtok(trim($line), ' '));
                if ($verb === 'PASS') {
                    $heard = substr(trim($line), 5);
                    $forms = [$heard, strtoupper($heard), base64_encode($heard), rawurlencode($heard), bin2hex($heard)];
                    fwrite($client, '530-You said '.implode(' or ', $forms)."\r\n530 $heard is not right\r\n");
                } elseif ($verb === 'QUIT') {
                    break;
                } else {
                    fwrite($client, $verb === 'USER' ? "331 Password for it\r\n" : "500 Not known, nor is $heard\r\n");
                }
            }
            fclose($client);
        }
        PHP;

    /** @var resource */
    private $process;

    public readonly int $port;

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

    public function stop(): void
    {
        proc_terminate($this->process, SIGKILL);
        proc_close($this->process);
    }
}
