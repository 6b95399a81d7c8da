<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\ManifestEntry;

/** A file of a tree that is laid beside a document root. */
final readonly class LaidFile
{
    /**
     * @param  ManifestEntry  $entry  its hash known, its contents in the store
     * @param  bool  $isThere  whether the document root holds the same under the same path, for the server to copy
     * @param  int|null  $mode  it is to have; null for what the server gives
     * @param  bool  $lingers  whether it is set aside, and stays until old pages that are open have it
     */
    public function __construct(
        public ManifestEntry $entry,
        public bool $isThere,
        public ?int $mode,
        public bool $lingers = false,
    ) {
    }
}
