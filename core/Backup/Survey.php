<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Manifest;

/** What a directory held when it was listed; hashes are not known yet. */
final readonly class Survey
{
    /** @param  list<RemotePath>  $temporary files of ours that a broken-off run left */
    public function __construct(
        public Manifest $manifest,
        public array $temporary = [],
    ) {
    }
}
