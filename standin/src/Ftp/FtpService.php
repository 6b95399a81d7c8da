<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

use Amp\Socket\BindContext;
use Amp\Socket\Certificate;
use Amp\Socket\ResourceServerSocket;
use Amp\Socket\ServerTlsContext;
use Cellarium\Standin\World\World;

use function Amp\async;
use function Amp\Socket\listen;

/** The FTP service of the hosting company: one event loop, one fiber a connection. */
final class FtpService
{
    private readonly ResourceServerSocket $server;

    private readonly BindContext $bind;

    /**
     * @param  string  $address  "127.0.0.1:2121"
     * @param  string  $certificate  PEM file with certificate and key, for AUTH TLS
     * @param  int  $idleSeconds  a silent control connection is closed with 421 after this long
     */
    public function __construct(
        private readonly World $world,
        string $address,
        string $certificate,
        private readonly int $idleSeconds = 300,
    ) {
        $tls = (new ServerTlsContext)->withDefaultCertificate(new Certificate($certificate));
        $this->bind = (new BindContext)->withTlsContext($tls)->withTcpNoDelay();
        $this->server = listen($address, $this->bind->withBacklog(512));
    }

    public function run(): void
    {
        async(function (): void {
            while ($socket = $this->server->accept()) {
                $session = new FtpSession($this->world, $socket, $this->bind, $this->idleSeconds);
                async($session->run(...))->ignore();
            }
        })->ignore();
    }

    public function address(): string
    {
        return $this->server->getAddress()->toString();
    }
}
