<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** Whose site it is, and all directories of an account that it is served from. */
final readonly class SitePlaces
{
    /** @var non-empty-list<RemotePath> document root first; what lies inside another of them is left out */
    public array $directories;

    /**
     * @param  list<RemotePath>  $mounted  directories from elsewhere in the account that answer below the site
     * @param  bool  $isPart  whether the rest of the site lies where no login of the account comes to
     */
    public function __construct(
        public string $domain,
        public string $client,
        public RemotePath $documentRoot,
        array $mounted = [],
        public bool $isPart = false,
    ) {
        $own = [$documentRoot];
        foreach ($mounted as $directory) {
            if (! $documentRoot->contains($directory)) {
                $own[] = $directory;
            }
        }
        $this->directories = $own;
    }

    /** A site of another account of which only a directory is within this one. */
    public static function partOf(string $domain, string $client, RemotePath $directory): self
    {
        return new self($domain, $client, $directory, isPart: true);
    }
}
