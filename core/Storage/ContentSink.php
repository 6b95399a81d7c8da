<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** A stream of PHP that hands what is written on to where it was opened for. */
final class ContentSink
{
    private const SCHEME = 'cellarium-sink';

    /** @var resource|null set by PHP */
    public $context;

    /** @var \Closure(string): void */
    private \Closure $write;

    /**
     * @param  \Closure(string): void  $write  what it throws comes out of fwrite()
     * @return resource
     */
    public static function open(\Closure $write)
    {
        in_array(self::SCHEME, stream_get_wrappers(), true) || stream_wrapper_register(self::SCHEME, self::class);
        $stream = fopen(self::SCHEME.'://', 'wb', false, stream_context_create([self::SCHEME => ['write' => $write]]));
        assert($stream !== false);

        return $stream;
    }

    public function stream_open(): bool
    {
        $options = $this->context === null ? [] : stream_context_get_options($this->context)[self::SCHEME];
        $write = is_array($options) ? $options['write'] ?? null : null;
        $this->write = $write instanceof \Closure ? $write : throw new \LogicException('a sink that leads nowhere');

        return true;
    }

    public function stream_write(string $bytes): int
    {
        ($this->write)($bytes);

        return strlen($bytes);
    }

    /** Whoever asks whether it can be written to by itself asks for this as well. */
    public function stream_eof(): bool
    {
        return true;
    }

    public function stream_flush(): bool
    {
        return true;
    }
}
