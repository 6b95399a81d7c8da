<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoredContent;
use Cellarium\Core\Storage\StoreFailure;
use ZipArchive;

/** The contents of a zip archive of a directory, taken into the store file by file. */
final readonly class ArchivedContents
{
    private function __construct(private ZipArchive $zip, private ContentStore $store)
    {
    }

    /** Null for what is no whole archive. */
    public static function open(string $file, ContentStore $store): ?self
    {
        $zip = new ZipArchive;

        return $zip->open($file, ZipArchive::RDONLY) === true ? new self($zip, $store) : null;
    }

    /**
     * Null where the archive has no file of that name and size, or a damaged one; it is then to be fetched by itself.
     *
     * @throws StoreFailure
     */
    public function take(ManifestEntry $entry): ?StoredContent
    {
        $facts = $this->zip->statName($entry->path->toString());
        $source = $facts !== false && $facts['size'] === $entry->size
            ? $this->zip->getStream($entry->path->toString())
            : false;
        if ($source === false) {
            return null;
        }
        try {
            // What an archive says of sizes is not believed: one byte more than there should be is enough to tell.
            $content = $this->store->put((static function () use ($source, $entry): \Generator {
                for ($bytes = 0; $bytes <= $entry->size && ! feof($source); $bytes += strlen($piece)) {
                    $piece = (string) fread($source, max(1, min(1 << 18, $entry->size + 1 - $bytes)));
                    yield $piece;
                }
            })());
        } finally {
            fclose($source);
        }

        return $content->size === $entry->size ? $content : null;
    }
}
