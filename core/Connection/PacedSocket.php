<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/**
 * A TCP connection as a stream of PHP, every step over which has an end: a server that is silent, that trickles, or
 * that takes nothing any more breaks it off. For libraries that read in the middle of what they wait for as long as
 * bytes come; see streamWrapper in PHP's manual.
 */
final class PacedSocket
{
    private const SCHEME = 'cellarium-paced';

    /** @var array{resource, StepDeadline}|null what the stream that is opened next is about */
    private static ?array $next = null;

    /** @var resource|null set by PHP */
    public $context;

    /** @var resource */
    private $socket;

    private StepDeadline $deadline;

    /**
     * @param  resource  $socket  connected, blocking
     * @return resource
     */
    public static function over($socket, StepDeadline $deadline)
    {
        in_array(self::SCHEME, stream_get_wrappers(), true) || stream_wrapper_register(self::SCHEME, self::class);
        self::$next = [$socket, $deadline];
        $stream = fopen(self::SCHEME.'://', 'r+b');

        $stream !== false || throw new \LogicException('A stream of our own could not be opened.');
        // Once PHP has seen that it cannot be sought in, what was read ahead survives writing.
        @fseek($stream, 0, SEEK_END);

        return $stream;
    }

    public function stream_open(): bool
    {
        [$this->socket, $this->deadline] = self::$next ?? throw new \LogicException('It is opened by over() alone.');
        self::$next = null;

        return stream_set_blocking($this->socket, false);
    }

    /** @return string what has come, at least one byte; "" once the other end is closed */
    public function stream_read(int $count): string
    {
        while (! feof($this->socket)) {
            $bytes = fread($this->socket, max(1, $count));
            if (is_string($bytes) && $bytes !== '') {
                $this->deadline->moved(strlen($bytes));

                return $bytes;
            }
            $this->await('read');
        }

        return '';
    }

    public function stream_write(string $bytes): int
    {
        $sent = 0;
        while ($sent < strlen($bytes) && ! feof($this->socket)) {
            $now = @fwrite($this->socket, substr($bytes, $sent, 65_536));
            if ($now === false) {
                break;
            }
            $sent += $now;
            $this->deadline->moved($now);
            $now > 0 || $this->await('write');
        }

        return $sent;
    }

    public function stream_eof(): bool
    {
        return feof($this->socket);
    }

    public function stream_close(): void
    {
        fclose($this->socket);
    }

    /** @return resource for stream_select() */
    public function stream_cast()
    {
        return $this->socket;
    }

    /** The pace says when it ends, whatever timeout is set. */
    public function stream_set_option(): bool
    {
        return true;
    }

    /** @param  'read'|'write'  $for */
    private function await(string $for): void
    {
        $left = $this->deadline->left();
        $began = hrtime(true);
        $read = $for === 'read' ? [$this->socket] : null;
        $write = $for === 'write' ? [$this->socket] : null;
        $none = null;
        @stream_select($read, $write, $none, (int) $left, (int) (fmod($left, 1.0) * 1e6));
        $this->deadline->waited((hrtime(true) - $began) / 1e9);
    }
}
