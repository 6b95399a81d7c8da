<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/**
 * A stream that takes so many bytes and then no more, so that what is read into it breaks off: what a server says of a
 * file's size need not be true.
 */
final class BoundedSink
{
    private const SCHEME = 'cellarium-bounded';

    /** @var resource|null set by PHP */
    public $context;

    private int $room = 0;

    private int $at = 0;

    private string $text = '';

    /** @return resource to write to, then to rewind and read */
    public static function open(int $bytes)
    {
        in_array(self::SCHEME, stream_get_wrappers(), true) || stream_wrapper_register(self::SCHEME, self::class);
        $stream = fopen(self::SCHEME."://$bytes", 'w+b');
        assert($stream !== false);

        return $stream;
    }

    public function stream_open(string $path): bool
    {
        $this->room = (int) substr($path, strlen(self::SCHEME) + 3);

        return true;
    }

    public function stream_write(string $bytes): int
    {
        if (strlen($bytes) > $this->room) {
            return 0;
        }
        $this->room -= strlen($bytes);
        $this->text .= $bytes;

        return strlen($bytes);
    }

    public function stream_read(int $length): string
    {
        $part = substr($this->text, $this->at, $length);
        $this->at += strlen($part);

        return $part;
    }

    public function stream_eof(): bool
    {
        return $this->at >= strlen($this->text);
    }

    public function stream_seek(int $offset, int $from): bool
    {
        $this->at = $offset;

        return $from === SEEK_SET;
    }

    public function stream_tell(): int
    {
        return $this->at;
    }

    /** @return array<string, int> */
    public function stream_stat(): array
    {
        return ['size' => strlen($this->text)];
    }
}
