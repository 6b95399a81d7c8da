<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;

/** What a package is and how it would land: a manifest without its wrapping folder, contents in the store. */
final readonly class Inspection
{
    /**
     * @param  string  $name  from the file name, without version and ending
     * @param  string|null  $version  from the file name
     * @param  string|null  $wrapper  the folder that was lifted, "site/public" say
     * @param  Manifest  $manifest  as it would land in the document root
     * @param  list<PackageFinding>  $findings
     */
    public function __construct(
        public string $name,
        public ?string $version,
        public ?string $wrapper,
        public Manifest $manifest,
        public ?string $startPage,
        public array $findings,
    ) {
    }

    public function stops(): bool
    {
        return array_filter($this->findings, static fn (PackageFinding $finding): bool => $finding->stops()) !== [];
    }
}
