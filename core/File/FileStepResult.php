<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\ManifestEntry;

/** The result of a step, as the server confirmed it. */
final readonly class FileStepResult
{
    /**
     * @param  ManifestEntry|null  $before  as it was; hash known where its contents are held here
     * @param  ManifestEntry|null  $after  as it is; of a renamed or copied one where it went
     * @param  bool  $modeRefused  whether the server did not set a mode
     */
    public function __construct(
        public ?ManifestEntry $before,
        public ?ManifestEntry $after,
        public bool $modeRefused = false,
    ) {
    }
}
