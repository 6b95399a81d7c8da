<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Path\RelativePath;

/** One entry of an archive, named and measured but not yet read. */
final readonly class ArchiveEntry
{
    /**
     * @param  int  $index  its place in the archive
     * @param  int  $size  bytes as declared
     * @param  int|null  $modified  seconds since 1970
     * @param  int|null  $mode  twelve bits, null where the archive says nothing of it
     */
    public function __construct(
        public int $index,
        public RelativePath $path,
        public bool $isDirectory,
        public int $size,
        public ?int $modified,
        public ?int $mode = null,
    ) {
    }
}
