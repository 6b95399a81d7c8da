<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

use Amp\CancelledException;
use Amp\Socket\BindContext;
use Amp\Socket\InternetAddress;
use Amp\Socket\ResourceServerSocket;
use Amp\Socket\ResourceSocket;
use Amp\Socket\TlsException;
use Amp\TimeoutCancellation;

use function Amp\Socket\listen;

/** The passive side of one session's data connections; a listener serves one connection and is gone. */
final class DataChannel
{
    private ?ResourceServerSocket $listener = null;

    private ?ResourceSocket $connection = null;

    /** Whether the client called off the transfer that this connection serves. */
    public bool $aborted = false;

    public function __construct(
        private readonly FtpSession $session,
        private readonly ResourceSocket $control,
        private readonly BindContext $bind,
    ) {}

    /** @return InternetAddress where the client is to connect */
    public function listen(): InternetAddress
    {
        $this->close();
        $this->aborted = false;
        $local = $this->control->getLocalAddress();
        $host = $local instanceof InternetAddress ? $local->getAddress() : '127.0.0.1';
        $this->listener = listen(str_contains($host, ':') ? "[$host]:0" : "$host:0", $this->bind);
        $address = $this->listener->getAddress();

        return $address instanceof InternetAddress ? $address : throw new Reply('No passive address', 425);
    }

    /**
     * Waits for the client's connection, encrypts it where PROT P was asked for.
     *
     * @throws Reply 425 when it does not come, or comes from elsewhere
     */
    public function connection(): ResourceSocket
    {
        if ($this->listener === null) {
            throw new Reply('Ask for a passive connection first', 425);
        }
        try {
            $connection = $this->listener->accept(new TimeoutCancellation(15));
            $this->listener->close();
            $this->listener = null;
            if ($connection === null || $this->host($connection) !== $this->host($this->control)) {
                throw new Reply('The data connection did not come from you', 425);
            }
            $this->connection = $connection;
            if ($this->session->protectData) {
                $connection->setupTls(new TimeoutCancellation(15));
            }

            return $connection;
        } catch (CancelledException|TlsException) {
            throw new Reply('The data connection could not be opened', 425);
        }
    }

    public function abort(): void
    {
        $this->aborted = true;
        $this->close();
    }

    /** Closes after all has been sent; over TLS with its closing alert, so that the end is not taken for a cut. */
    public function finish(): void
    {
        if ($this->connection !== null && ! $this->connection->isClosed()) {
            if ($this->session->protectData) {
                $this->connection->shutdownTls();
            }
            $this->connection->end();
        }
        $this->close();
    }

    public function close(): void
    {
        $this->listener?->close();
        $this->connection?->close();
        $this->listener = null;
        $this->connection = null;
    }

    private function host(ResourceSocket $socket): string
    {
        $address = $socket->getRemoteAddress();

        return $address instanceof InternetAddress ? $address->getAddress() : '';
    }
}
