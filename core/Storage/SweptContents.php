<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** The outcome of a sweep of the store. */
final readonly class SweptContents
{
    /**
     * @param  int  $asideFiles  moved aside this time
     * @param  int  $asideBytes  of these, sealed
     * @param  int  $backFiles  lay aside and are referred to, so that they are in their places again
     * @param  int  $deletedFiles  had lain aside for a week, or were deleted by a person
     * @param  int  $freedBytes  of these, sealed
     */
    public function __construct(
        public int $asideFiles = 0,
        public int $asideBytes = 0,
        public int $backFiles = 0,
        public int $deletedFiles = 0,
        public int $freedBytes = 0,
    ) {
    }
}
