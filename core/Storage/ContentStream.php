<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Contents as a stream to read from: opened and decompressed as they are read. It can be wound back, and forward by
 * reading what lies between.
 */
final class ContentStream
{
    private const SCHEME = 'cellarium-contents';

    /** Bytes PHP asks for at a time. */
    private const CHUNK = 262_144;

    /** @var resource|null set by PHP */
    public $context;

    /** @var \Closure(): \Generator<string> */
    private \Closure $begin;

    /** @var \Generator<string> */
    private \Generator $pieces;

    private string $held = '';

    private int $at = 0;

    /**
     * @param  \Closure(): \Generator<string>  $begin  gives all bytes from the first on, each time it is called; what
     *     it throws comes out of whatever reads
     * @return resource
     */
    public static function open(\Closure $begin)
    {
        in_array(self::SCHEME, stream_get_wrappers(), true) || stream_wrapper_register(self::SCHEME, self::class);
        $stream = fopen(self::SCHEME.'://', 'rb', false, stream_context_create([self::SCHEME => ['begin' => $begin]]));
        assert($stream !== false);
        stream_set_chunk_size($stream, self::CHUNK);

        return $stream;
    }

    public function stream_open(): bool
    {
        $options = $this->context === null ? [] : stream_context_get_options($this->context)[self::SCHEME];
        $begin = is_array($options) ? $options['begin'] ?? null : null;
        $this->begin = $begin instanceof \Closure ? $begin : throw new \LogicException('a stream of nothing');
        $this->pieces = $this->anew();

        return true;
    }

    public function stream_read(int $length): string
    {
        $this->fill();
        $part = substr($this->held, 0, $length);
        $this->held = substr($this->held, strlen($part));
        $this->at += strlen($part);

        return $part;
    }

    public function stream_eof(): bool
    {
        $this->fill();

        return $this->held === '';
    }

    public function stream_seek(int $offset, int $from): bool
    {
        if ($from !== SEEK_SET || $offset < 0) {
            return false;
        }
        if ($offset < $this->at) {
            [$this->pieces, $this->held, $this->at] = [$this->anew(), '', 0];
        }
        while ($this->at < $offset) {
            if ($this->stream_read($offset - $this->at) === '') {
                return false;
            }
        }

        return true;
    }

    public function stream_tell(): int
    {
        return $this->at;
    }

    /** @return array<string, int> nothing is known of it before it is read */
    public function stream_stat(): array
    {
        return [];
    }

    /** @return \Generator<string> */
    private function anew(): \Generator
    {
        return ($this->begin)();
    }

    /** There is something to give, or all has been given. */
    private function fill(): void
    {
        while ($this->held === '' && $this->pieces->valid()) {
            $this->held = $this->pieces->current();
            $this->pieces->next();
        }
    }
}
