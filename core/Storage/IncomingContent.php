<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Bytes on their way into the store; what is small is held, the rest sealed as it comes. */
final class IncomingContent
{
    /** Up to here contents are held before a file is made for them: icons and empty files are in every version. */
    private const HELD_BYTES = 262_144;

    private \HashContext $hash;

    private int $size = 0;

    private string $held = '';

    /** @var resource|null */
    private $file;

    private ?SealedWriter $writer = null;

    private readonly string $name;

    /**
     * @param  \Closure(string, int): bool  $isKnown  whether the store has contents of that hash and size, read back
     */
    public function __construct(
        private readonly StoredObjects $objects,
        private readonly ContentKeys $keys,
        private readonly \Closure $isKnown,
    ) {
        $this->hash = hash_init('sha256');
        $this->name = $objects->incoming();
    }

    /** @throws StoreFailure it is then to be discarded */
    public function write(string $bytes): void
    {
        hash_update($this->hash, $bytes);
        $this->size += strlen($bytes);
        $this->held .= $bytes;
        strlen($this->held) <= self::HELD_BYTES || $this->pass();
    }

    /** @return resource what is written to it goes into this */
    public function sink()
    {
        return ContentSink::open($this->write(...));
    }

    /**
     * Keeps what has come; nothing more can be written.
     *
     * @throws StoreFailure nothing is kept then
     */
    public function keep(): StoredContent
    {
        $sha256 = hash_final($this->hash);
        try {
            if (! ($this->isKnown)($sha256, $this->size)) {
                $this->pass();
                $this->writer?->finish();
                $isWritten = is_resource($this->file) && fflush($this->file);
                $isWritten || throw StoreFailure::writing($this->name);
                $this->close();
                $this->objects->publish($this->name, $sha256);
            }
        } finally {
            $this->discard();
        }

        return new StoredContent($sha256, $this->size);
    }

    /** Nothing of it stays. */
    public function discard(): void
    {
        $this->close();
        $this->held = '';
        $this->writer === null || @unlink($this->name);
        $this->writer = null;
    }

    public function __destruct()
    {
        $this->discard();
    }

    private function pass(): void
    {
        if ($this->writer === null) {
            $file = @fopen($this->name, 'xb');
            $this->file = $file === false ? throw StoreFailure::writing($this->name) : $file;
            $this->writer = new SealedWriter($file, $this->name, $this->keys);
        }
        $this->writer->write($this->held);
        $this->held = '';
    }

    private function close(): void
    {
        is_resource($this->file) && fclose($this->file);
    }
}
