<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Path\RemotePath;

/** One that was looked for, where it lies. */
final readonly class FoundFile
{
    /**
     * @param  int  $count  lines in it that say what was looked for; 0 where only names were
     * @param  list<array{int, string}>  $lines  the first of these: number from 1, and what stands there
     * @param  bool  $isSensitive  whether passwords may stand in it, by what it holds
     */
    public function __construct(
        public RemotePath $path,
        public RemoteEntry $entry,
        public int $count = 0,
        public array $lines = [],
        public bool $isSensitive = false,
    ) {
    }
}
