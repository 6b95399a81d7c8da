<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Web\CurlWebClient;
use Cellarium\Standin\World\CertificateMaker;
use PHPUnit\Framework\TestCase;
use Tests\Support\FreePort;
use Tests\Support\Scratch;

/**
 * A host asked for a domain that does not lead to it, over TLS: the name stands in SNI, and the certificate has to fit
 * it.
 */
final class WebTlsTest extends TestCase
{
    use Scratch;

    public function test_the_name_is_told_in_the_handshake_and_its_certificate_verified(): void
    {
        $root = $this->directory();
        file_put_contents("$root/token.txt", 'the token');
        $own = $this->directory();
        (new CertificateMaker($own))->make(['site.example']);
        // The certificate shown to whoever tells no name, or another one, verifies for nobody.
        exec(
            'openssl req -x509 -newkey rsa:2048 -nodes -subj /CN=default.example -days 2 -keyout '
                .escapeshellarg("$own/default.key")
                .' -out '
                .escapeshellarg("$own/default.pem")
                .' 2>&1',
            $said,
            $status,
        );
        self::assertSame(0, $status, implode("\n", $said));
        $port = FreePort::find();
        $server = proc_open(
            [
                'openssl',
                's_server',
                '-accept',
                "127.0.0.1:$port",
                '-cert',
                "$own/default.pem",
                '-key',
                "$own/default.key",
                '-servername',
                'site.example',
                '-cert2',
                "$own/server.pem",
                '-key2',
                "$own/server.pem",
                '-WWW',
                '-quiet',
            ],
            [0 => ['pipe', 'r'], 1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
            $root,
        );
        self::assertIsResource($server);
        try {
            for (
                $until = microtime(true) + 10;
                ($socket = @stream_socket_client("tcp://127.0.0.1:$port")) === false && microtime(true) < $until;

            ) {
                usleep(10_000);
            }
            self::assertNotFalse($socket);
            fclose($socket);
            $web = new CurlWebClient(static fn (): ?string => null, "$own/ca.pem");
            $answer = $web->fetch("https://site.example:$port/token.txt", '127.0.0.1');
            self::assertSame([200, 'the token'], [$answer->status, $answer->head], (string) $answer->error);
            self::assertSame(
                0,
                $web->fetch("https://other.example:$port/token.txt", '127.0.0.1')->status,
                'a certificate for another name is not taken',
            );
            self::assertTrue($web->fetch("https://site.example.invalid:$port/token.txt")->nameUnknown);
        } finally {
            proc_terminate($server, SIGKILL);
            proc_close($server);
        }
    }
}
