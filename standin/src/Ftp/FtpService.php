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

    private readonly ?ResourceServerSocket $encrypted;

    private readonly BindContext $bind;

    /**
     * @param  string  $address  "127.0.0.1:2121"
     * @param  string  $certificate  PEM file with certificate and key, for AUTH TLS
     * @param  string|null  $encryptedAddress  where TLS comes first, without being asked for
     * @param  int  $idleSeconds  a silent control connection is closed with 421 after this long
     */
    public function __construct(
        private readonly World $world,
        string $address,
        string $certificate,
        private readonly int $idleSeconds = 300,
        ?string $encryptedAddress = null,
    ) {
        $tls = (new ServerTlsContext)->withDefaultCertificate(new Certificate($certificate));
        $this->bind = (new BindContext)->withTlsContext($tls)->withTcpNoDelay();
        $this->server = listen($address, $this->bind->withBacklog(512));
        $this->encrypted = $encryptedAddress === null ? null : listen($encryptedAddress, $this->bind->withBacklog(512));
    }

    public function run(): void
    {
        $this->accept($this->server, false);
        $this->encrypted === null ?: $this->accept($this->encrypted, true);
    }

    private function accept(ResourceServerSocket $server, bool $encryptedFirst): void
    {
        async(function () use ($server, $encryptedFirst): void {
            while ($socket = $server->accept()) {
                $session = new FtpSession($this->world, $socket, $this->bind, $this->idleSeconds);
                async(fn () => $session->run($encryptedFirst))->ignore();
            }
        })->ignore();
    }

    public function encryptedAddress(): ?string
    {
        return $this->encrypted?->getAddress()->toString();
    }

    public function address(): string
    {
        return $this->server->getAddress()->toString();
    }
}
