<?php

declare(strict_types=1);

namespace Cellarium\Core\Archive;

/** The sizes of one file in an archive, as the archive has them. */
final readonly class ZippedSize
{
    private const DEFLATED = 8;

    /**
     * @param  int  $bytes  of the file
     * @param  int  $inArchive  bytes, compressed or the same
     * @param  int  $crc  of the file (CRC-32, ISO 3309)
     */
    public function __construct(
        public int $bytes,
        public int $inArchive,
        public int $crc,
        private int $method = 0,
    ) {
    }

    public static function stored(int $bytes, int $crc): self
    {
        return new self($bytes, $bytes, $crc);
    }

    public static function deflated(int $bytes, int $inArchive, int $crc): self
    {
        return new self($bytes, $inArchive, $crc, self::DEFLATED);
    }

    /** As an archive numbers it (APPNOTE 4.4.5). */
    public function method(): int
    {
        return $this->method;
    }
}
