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
use Revolt\EventLoop;

use function Amp\Socket\listen;

/** The passive side of one session's data connections; a listener serves one connection and is gone. */
final class DataChannel
{
    private ?ResourceServerSocket $listener = null;

    private ?ResourceSocket $connection = null;

    private int $opened = 0;

    /** Whether the client cancelled the transfer that this connection serves. */
    public bool $aborted = false;

    public function __construct(
        private readonly FtpSession $session,
        private readonly ResourceSocket $control,
        private readonly BindContext $bind,
    ) {
    }

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
            $most = $this->session->faults()->dataRefusedAfter;
            if ($most !== null && ++$this->opened > $most) {
                throw new Reply('Unable to build data connection', 425);
            }
            if ($this->session->protectData) {
                $this->encrypt($connection);
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
                $stream = $this->connection->getResource();
                is_resource($stream) && @stream_socket_enable_crypto($stream, false);
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

    /**
     * TLS 1.2 at the most: in TLS 1.3 the server's session tickets come after the handshake, a client that only sends
     * never reads them, and closing with unread bytes makes its system reset the connection and lose what it sent.
     */
    private function encrypt(ResourceSocket $connection): void
    {
        $stream = $connection->getResource();
        $options = $this->bind->getTlsContext()?->toStreamContextArray();
        if (! is_resource($stream) || $options === null) {
            throw new TlsException('no TLS here');
        }
        stream_context_set_option($stream, $options);
        $until = microtime(true) + 15;
        while (
            ($done = @stream_socket_enable_crypto($stream, true, STREAM_CRYPTO_METHOD_TLSv1_2_SERVER)) === 0
            && microtime(true) < $until
        ) {
            $suspension = EventLoop::getSuspension();
            $readable = EventLoop::onReadable($stream, static fn () => $suspension->resume(true));
            $late = EventLoop::delay(15, static fn () => $suspension->resume(false));
            $suspension->suspend();
            EventLoop::cancel($readable);
            EventLoop::cancel($late);
        }
        if ($done !== true) {
            throw new TlsException('the handshake failed');
        }
    }

    private function host(ResourceSocket $socket): string
    {
        $address = $socket->getRemoteAddress();

        return $address instanceof InternetAddress ? $address->getAddress() : '';
    }
}
