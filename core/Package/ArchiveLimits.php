<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Words\Bytes;

/** Limits on the size of an unpacked archive; checked on what it declares first, then on what really comes out. */
final readonly class ArchiveLimits
{
    /**
     * @param  int  $totalBytes  unpacked, all entries together
     * @param  int  $ratio  unpacked to packed, of one entry and of the whole
     * @param  int  $ratioFrom  bytes unpacked below which a ratio tells nothing
     */
    public function __construct(
        public int $entries = 100_000,
        public int $totalBytes = 4_000_000_000,
        public int $ratio = 250,
        public int $ratioFrom = 10_000_000,
    ) {
    }

    /** @throws PackageRefused */
    public function check(string $archive, int $entries, int $unpacked, int $packed): void
    {
        if ($entries > $this->entries) {
            throw PackageRefused::because($archive, RefusalReason::TooManyEntries, (string) $this->entries);
        }
        if ($unpacked > $this->totalBytes) {
            throw PackageRefused::because($archive, RefusalReason::TooLarge, Bytes::words($this->totalBytes));
        }
        if ($unpacked > $this->ratioFrom && $unpacked > $this->ratio * max(1, $packed)) {
            throw PackageRefused::because($archive, RefusalReason::Bomb);
        }
    }
}
