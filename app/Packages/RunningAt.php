<?php

declare(strict_types=1);

namespace App\Packages;

use Carbon\CarbonImmutable;

/** A place where a version of a package was put, and is live or the way back. */
final readonly class RunningAt
{
    /** @param  string|null  $directory  inside the document root; null for the document root itself */
    public function __construct(
        public int $site,
        public string $domain,
        public ?string $directory,
        public CarbonImmutable $since,
        public bool $isLive,
    ) {
    }
}
