<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Compare;

use Cellarium\Core\Manifest\ManifestEntry;

/** A file that is not the same in two versions of a package. */
final readonly class ChangedFile
{
    /**
     * @param  ManifestEntry|null  $before  null where it was added
     * @param  ManifestEntry|null  $after  null where it is gone
     */
    public function __construct(
        public FileChange $change,
        public ?ManifestEntry $before,
        public ?ManifestEntry $after,
    ) {
    }

    /** Where it is now, or where it was. */
    public function path(): string
    {
        return (string) ($this->after ?? $this->before)?->path;
    }
}
