<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/** What the files of a package hold, read out of the store. */
final readonly class PackageContents
{
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
        $found = @getimagesize($this->store->file((string) $entry->sha256));

        return $found === false || $found[0] < 1 || $found[1] < 1 ? null : [$found[0], $found[1]];
    }

    /** @param  int<0, max>|null  $bytes */
    private function read(ManifestEntry $entry, ?int $bytes): string
    {
        $text = @file_get_contents($this->store->file((string) $entry->sha256), length: $bytes);

        return $text === false ? throw StoreFailure::missing((string) $entry->sha256) : $text;
    }
}
