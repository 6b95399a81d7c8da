<?php

declare(strict_types=1);

namespace App\Packages;

/** A place where something of the kind of a package is installed, whoever put it there. */
final readonly class InstalledAt
{
    /**
     * @param  string  $directory  below the document root, from "/"
     * @param  string|null  $version  null where it could not be understood
     * @param  bool  $isBehind  whether that is an older one than the package's
     */
    public function __construct(
        public int $site,
        public string $domain,
        public string $directory,
        public ?string $version,
        public bool $isBehind,
    ) {
    }
}
