<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Plan\Manifest;

/** A backup that has been taken and read back. */
final readonly class Backup
{
    /**
     * @param  Manifest  $manifest  every file with its hash
     * @param  int  $fetchedFiles  how many had to be fetched; the rest was in the store
     * @param  int  $fetchedBytes  bytes
     */
    public function __construct(
        public string $name,
        public Manifest $manifest,
        public int $fetchedFiles,
        public int $fetchedBytes,
    ) {
    }
}
