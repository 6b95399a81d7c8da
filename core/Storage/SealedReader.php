<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Reads what SealedWriter wrote; memory stays flat, whatever is in it. */
final class SealedReader
{
    private const ID = 16;

    /** So much is decompressed at a time: it may become a thousand times as much. */
    private const COMPRESSED = 4_096;

    private string $state;

    private string $header;

    /**
     * @param  resource  $file  stands behind the header
     * @param  string  $keyId  of the key it is sealed with
     * @param  string  $name  for whoever is told that it is damaged
     */
    private function __construct(
        private $file,
        public readonly string $keyId,
        private readonly bool $isCompressed,
        private readonly string $name,
    ) {
    }

    /**
     * @param  resource  $file
     *
     * @throws StoreFailure damaged, or sealed with a key that is not there
     */
    public static function open($file, string $name, ContentKeys $keys): self
    {
        $length = strlen(SealedWriter::MAGIC) + self::ID + 1;
        $header = (string) stream_get_contents($file, $length);
        $sealed = (string) stream_get_contents($file, SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_HEADERBYTES);
        $isOurs = preg_match('/\A'.SealedWriter::MAGIC.'(k[0-9a-f]{15})([z-])\z/', $header, $match) === 1;
        if (! $isOurs || strlen($sealed) !== SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_HEADERBYTES) {
            throw StoreFailure::damaged($name);
        }
        $reader = new self($file, $match[1], $match[2] === 'z', $name);
        $reader->header = $header;
        $reader->state = sodium_crypto_secretstream_xchacha20poly1305_init_pull($sealed, $keys->key($match[1]));

        return $reader;
    }

    /**
     * @return \Generator<string> what was written, in pieces
     *
     * @throws StoreFailure where it is not whole, or has other bytes; what came before is as it was written
     */
    public function pieces(): \Generator
    {
        if (! $this->isCompressed) {
            yield from $this->opened();

            return;
        }
        $inflate = inflate_init(ZLIB_ENCODING_RAW);
        foreach ($this->opened() as $opened) {
            for ($at = 0; $at < strlen($opened); $at += self::COMPRESSED) {
                $piece = $inflate === false
                    ? false
                    : @inflate_add($inflate, substr($opened, $at, self::COMPRESSED), ZLIB_SYNC_FLUSH);
                yield $piece === false ? throw StoreFailure::damaged($this->name) : $piece;
            }
        }
    }

    /** @return \Generator<string> */
    private function opened(): \Generator
    {
        $length = SealedWriter::PIECE + SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_ABYTES;
        do {
            $sealed = (string) stream_get_contents($this->file, $length);
            $opened = sodium_crypto_secretstream_xchacha20poly1305_pull($this->state, $sealed, $this->header);
            [$piece, $tag] = is_array($opened) ? $opened : throw StoreFailure::damaged($this->name);
            assert(is_string($piece));
            $this->header = '';
            yield $piece;
        } while ($tag !== SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_TAG_FINAL);
        if ((string) stream_get_contents($this->file, 1) !== '') {
            throw StoreFailure::damaged($this->name);
        }
    }
}
