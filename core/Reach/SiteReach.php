<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** The part of one site that a login can touch. */
final readonly class SiteReach
{
    /**
     * @param  list<string>  $parts  where it is only a part: "/orders" below the document root, or a mounted
     *     directory in full
     */
    private function __construct(
        public string $domain,
        public string $client,
        public Extent $extent,
        public array $parts = [],
    ) {
    }

    public static function fromDirectory(RemotePath $directory, SitePlaces $site): self
    {
        $whole = 0;
        $parts = [];
        foreach ($site->directories as $place) {
            if ($directory->contains($place)) {
                $whole++;
                $parts[] = $place->toString();
            } elseif ($place->contains($directory)) {
                $parts[] = '/'.$place->toward($directory);
            }
        }

        return match (true) {
            $whole === count($site->directories) && ! $site->isPart => new self(
                $site->domain,
                $site->client,
                Extent::Whole,
            ),
            $parts !== [] => new self($site->domain, $site->client, Extent::Part, $parts),
            default => new self($site->domain, $site->client, Extent::None),
        };
    }
}
