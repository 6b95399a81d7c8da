<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** The result of reading a part of the store back. */
final readonly class CheckedContents
{
    /**
     * @param  int  $bytes  as they lie there
     * @param  int  $sealedAnew  how many were sealed with a key that is no longer in use
     * @param  list<string>  $damaged  SHA-256
     * @param  string|null  $next  where to go on; null when the end was reached
     */
    public function __construct(
        public int $files,
        public int $bytes,
        public int $sealedAnew,
        public array $damaged,
        public ?string $next,
    ) {
    }
}
