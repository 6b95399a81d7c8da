<?php

declare(strict_types=1);

namespace Cellarium\Core\Upload;

use Cellarium\Core\Storage\StoreFailure;

/**
 * A file that comes in pieces. How far it has come is its size on the disk and nothing else, so that nothing has to be
 * put right after a loss of power or a killed process.
 */
final readonly class PartialFile
{
    /** @param  int  $length  bytes it will have, from 1 */
    public function __construct(private string $path, private int $length)
    {
    }

    /** @throws StoreFailure */
    public function begin(): void
    {
        $directory = dirname($this->path);
        is_dir($directory) || @mkdir($directory, 0700, true);
        if (! @touch($this->path)) {
            throw StoreFailure::writing($this->path);
        }
    }

    /** @return int bytes that are there */
    public function offset(): int
    {
        clearstatcache(true, $this->path);

        return (int) @filesize($this->path);
    }

    public function isWhole(): bool
    {
        return $this->offset() === $this->length;
    }

    /**
     * Adds a piece. Without a checksum what arrived before a connection broke off stays; with one a piece is taken
     * whole or not at all.
     *
     * @param  int<0, max>  $offset  where it begins
     * @param  iterable<string>  $chunks
     * @return int bytes that are there then
     *
     * @throws UploadRefused
     * @throws StoreFailure what was there before is there still
     */
    public function append(int $offset, iterable $chunks, ?UploadChecksum $checksum): int
    {
        $stream = @fopen($this->path, 'r+b');
        if ($stream === false) {
            throw StoreFailure::writing($this->path);
        }
        try {
            if (! flock($stream, LOCK_EX | LOCK_NB)) {
                throw UploadRefused::because(UploadRefusal::Busy);
            }
            if ($this->offset() !== $offset) {
                throw UploadRefused::because(UploadRefusal::OtherOffset);
            }
            fseek($stream, $offset);
            try {
                $this->write($stream, $offset, $chunks, $checksum);
            } catch (UploadRefused|StoreFailure $refused) {
                ftruncate($stream, $offset);
                throw $refused;
            } finally {
                fflush($stream);
            }
        } finally {
            fclose($stream);
        }

        return $this->offset();
    }

    /**
     * @param  resource  $stream
     * @param  iterable<string>  $chunks
     */
    private function write($stream, int $offset, iterable $chunks, ?UploadChecksum $checksum): void
    {
        $hash = $checksum === null ? null : hash_init($checksum->algorithm);
        foreach ($chunks as $chunk) {
            $offset += strlen($chunk);
            if ($offset > $this->length) {
                throw UploadRefused::because(UploadRefusal::TooMuch);
            }
            if (@fwrite($stream, $chunk) !== strlen($chunk)) {
                throw StoreFailure::writing($this->path);
            }
            $hash === null || hash_update($hash, $chunk);
        }
        if ($checksum !== null && $hash !== null && ! $checksum->isOf(hash_final($hash, true))) {
            throw UploadRefused::because(UploadRefusal::ChecksumMismatch);
        }
    }
}
