<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Path\RemotePath;

/** A directory that may be a site's document root, and what speaks for and against it. */
final readonly class RootCandidate
{
    /** @param  list<string>  $reasons */
    public function __construct(
        public RemotePath $directory,
        public int $score,
        public array $reasons,
    ) {
    }

    /** @return array{directory: string, score: int, reasons: list<string>} */
    public function toArray(): array
    {
        return ['directory' => $this->directory->toString(), 'score' => $this->score, 'reasons' => $this->reasons];
    }
}
