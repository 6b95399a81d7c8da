<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Site;

/** A directory of a site that a package may go to instead of where its kind goes. */
final readonly class ChosenPlace
{
    private function __construct(public string $name, public string $directory)
    {
    }

    /** @return list<self> what is mounted below the site, then its destinations by name */
    public static function forSite(Site $site): array
    {
        $places = [];
        foreach ($site->mounts as $mount) {
            $places[$mount['directory']] = new self("{$site->domain}{$mount['path']}", $mount['directory']);
        }
        foreach ($site->destinations as $destination) {
            $reached = array_filter(
                [$site->root(), ...$site->mounted()],
                static fn ($served): bool => $served->toward($destination->path()) !== null,
            );
            $reached === [] || $places[$destination->directory] = new self($destination->name, $destination->directory);
        }

        return array_values($places);
    }
}
