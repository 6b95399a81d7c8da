<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

/** A domain and the directory of the account's home that the web service serves for it. */
final readonly class HostedSite
{
    /** @param  list<string>  $startPages file names a directory is served by, first match wins */
    public function __construct(
        public string $domain,
        public string $directory,
        public array $startPages,
    ) {
    }

    /** @return array{domain: string, directory: string, start_pages: list<string>} */
    public function toArray(): array
    {
        return ['domain' => $this->domain, 'directory' => $this->directory, 'start_pages' => $this->startPages];
    }
}
