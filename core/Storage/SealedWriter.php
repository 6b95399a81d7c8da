<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Writes contents as they are kept: compressed where that pays (RFC 1951), then sealed (libsodium's secretstream,
 * XChaCha20-Poly1305).
 *
 * A file begins with "CLS1", the id of the key, "z" or "-" for compressed or not, and the stream's own header; then
 * come pieces of 64 KiB and 17 bytes, the last one shorter and marked as the last, so that nothing can be cut off, put
 * in another order or altered without being noticed.
 */
final class SealedWriter
{
    public const MAGIC = 'CLS1';

    /** Bytes sealed in one piece. */
    public const PIECE = 65_536;

    /** To what share of its size the beginning must shrink, so that all is compressed. */
    private const PAYS = 0.9;

    private const LEVEL = 4;

    /** The beginning, until it is known whether compressing pays. */
    private string $beginning = '';

    private ?\DeflateContext $deflate = null;

    private string $unsealed = '';

    private string $state = '';

    /** What is sealed with the first piece, so that it cannot be another. */
    private string $header = '';

    private bool $isBegun = false;

    /**
     * @param  resource  $file  to write to
     * @param  string  $name  of it, for whoever is told that it could not be written
     */
    public function __construct(private $file, private readonly string $name, private readonly ContentKeys $keys)
    {
    }

    /** @throws StoreFailure */
    public function write(string $bytes): void
    {
        if (! $this->isBegun) {
            $this->beginning .= $bytes;
            if (strlen($this->beginning) < self::PIECE) {
                return;
            }
            $bytes = $this->begin();
        }
        $this->seal($this->deflate === null ? $bytes : (string) deflate_add($this->deflate, $bytes, ZLIB_NO_FLUSH));
    }

    /** @throws StoreFailure */
    public function finish(): void
    {
        $this->isBegun || $this->write($this->begin());
        $this->deflate === null || $this->seal((string) deflate_add($this->deflate, '', ZLIB_FINISH));
        $this->push($this->unsealed, SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_TAG_FINAL);
    }

    /** @return string what has been held back */
    private function begin(): string
    {
        $this->isBegun = true;
        [$beginning, $this->beginning] = [$this->beginning, ''];
        $first = substr($beginning, 0, self::PIECE);
        $pays = strlen((string) gzdeflate($first, 1)) < strlen($first) * self::PAYS;
        if ($pays) {
            $deflate = deflate_init(ZLIB_ENCODING_RAW, ['level' => self::LEVEL]);
            $this->deflate = $deflate === false ? null : $deflate;
        }
        $begun = sodium_crypto_secretstream_xchacha20poly1305_init_push($this->keys->key($this->keys->current));
        [$state, $header] = $begun;
        assert(is_string($state) && is_string($header));
        $this->state = $state;
        $this->header = self::MAGIC.$this->keys->current.($this->deflate === null ? '-' : 'z');
        $this->put($this->header.$header);

        return $beginning;
    }

    private function seal(string $bytes): void
    {
        $this->unsealed .= $bytes;
        $whole = intdiv(max(0, strlen($this->unsealed) - 1), self::PIECE);
        for ($piece = 0; $piece < $whole; $piece++) {
            $this->push(
                substr($this->unsealed, $piece * self::PIECE, self::PIECE),
                SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_TAG_MESSAGE,
            );
        }
        $this->unsealed = $whole === 0 ? $this->unsealed : substr($this->unsealed, $whole * self::PIECE);
    }

    private function push(string $piece, int $tag): void
    {
        $this->put(sodium_crypto_secretstream_xchacha20poly1305_push($this->state, $piece, $this->header, $tag));
        $this->header = '';
    }

    private function put(string $bytes): void
    {
        if (@fwrite($this->file, $bytes) !== strlen($bytes)) {
            throw StoreFailure::writing($this->name);
        }
    }
}
