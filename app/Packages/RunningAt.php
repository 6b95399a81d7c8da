<?php

declare(strict_types=1);

namespace App\Packages;

use Carbon\CarbonImmutable;

/** A place where a version of a package was put, and is live or the way back. */
final readonly class RunningAt
{
    /**
     * @param  string|null  $directory  inside the document root; null for the document root itself
     * @param  int  $package  the number of that version
     * @param  string|null  $name  of the package, where packages of several names were asked for
     * @param  string|null  $version  the same
     */
    public function __construct(
        public int $site,
        public string $domain,
        public ?string $directory,
        public CarbonImmutable $since,
        public bool $isLive,
        public int $package,
        public ?string $name = null,
        public ?string $version = null,
    ) {
    }
}
