<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Contents;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/** The contents of a package's files, read out of the store. */
final readonly class PackageContents
{
    /** Bytes of a picture in which its size nearly always stands. */
    private const PICTURE_BEGINS = 65_536;

    private const LARGEST_PICTURE = 30_000_000;

    public function __construct(private ContentStore $store)
    {
    }

    /** @throws StoreFailure */
    public function text(ManifestEntry $entry): string
    {
        return $this->read($entry, null);
    }

    /**
     * @param  int<1, max>  $bytes
     * @return string the first of them, fewer where there are no more
     *
     * @throws StoreFailure
     */
    public function head(ManifestEntry $entry, int $bytes): string
    {
        return $this->read($entry, $bytes);
    }

    /**
     * @return array{int, int}|null width and height in pixels; null where it is no picture made of pixels
     *
     * @throws StoreFailure
     */
    public function pixels(ManifestEntry $entry): ?array
    {
        $found = @getimagesizefromstring($this->read($entry, self::PICTURE_BEGINS));
        // What stands before the size of a picture, a preview of it say, may be long.
        $found = $found === false && $entry->size > self::PICTURE_BEGINS && $entry->size <= self::LARGEST_PICTURE
            ? @getimagesizefromstring($this->read($entry, null))
            : $found;

        return $found === false || $found[0] < 1 || $found[1] < 1 ? null : [$found[0], $found[1]];
    }

    /** @param  int<0, max>|null  $bytes */
    private function read(ManifestEntry $entry, ?int $bytes): string
    {
        return $this->store->text((string) $entry->sha256, $bytes);
    }
}
