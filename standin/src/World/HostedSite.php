<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

/** A domain and the directory of the account's home that the web service serves for it. */
final readonly class HostedSite
{
    /**
     * @param  list<string>  $startPages  file names a directory is served by, first match wins
     * @param  array<string, string>  $mounts  directories from elsewhere in the home by where they answer, "/blog"
     */
    public function __construct(
        public string $domain,
        public string $directory,
        public array $startPages,
        public array $mounts = [],
    ) {
    }

    /** @return array{string, string} the directory that answers for an address, and the address below it */
    public function serves(string $path): array
    {
        foreach ($this->mounts as $below => $directory) {
            if ($path === $below || str_starts_with($path, "$below/")) {
                return [$directory, substr($path, strlen($below))];
            }
        }

        return [$this->directory, $path];
    }

    /**
     * @return array{
     *     domain: string,
     *     directory: string,
     *     start_pages: list<string>,
     *     mounts: array<string, string>,
     * }
     */
    public function toArray(): array
    {
        return [
            'domain' => $this->domain,
            'directory' => $this->directory,
            'start_pages' => $this->startPages,
            'mounts' => $this->mounts,
        ];
    }
}
