<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/**
 * A backup whose stored copy was read back: a promise that only this class makes, and that everything demands that
 * replaces something.
 */
final readonly class VerifiedBackup
{
    /** @param  Manifest  $manifest  every file with its hash, contents in the store */
    private function __construct(public string $name, public Manifest $manifest)
    {
    }

    /**
     * Reads back the list, and what has come; the rest was read before it was taken over.
     *
     * @param  string  $name  under which the list is kept
     * @param  list<ManifestEntry>  $come  files that were read from the server this time
     *
     * @throws StoreFailure naming the first file that is not as it was
     */
    public static function readBack(
        BackupShelf $shelf,
        ContentStore $store,
        string $name,
        Manifest $manifest,
        array $come,
    ): self {
        $shelf->holds($name, $manifest) || throw StoreFailure::damagedList($name);
        $seen = [];
        foreach ($come as $file) {
            $sha256 = (string) $file->sha256;
            if (! isset($seen[$sha256]) && ! $store->isIntact($sha256, $file->size)) {
                throw StoreFailure::damaged($file->path->toString());
            }
            $seen[$sha256] = true;
        }

        return new self($name, $manifest);
    }

    /**
     * One of a run that was broken off; its journal names it only once it was read back.
     *
     * @throws StoreFailure where its list cannot be read any more
     */
    public static function noted(BackupShelf $shelf, string $name): self
    {
        return new self($name, $shelf->manifest($name));
    }
}
