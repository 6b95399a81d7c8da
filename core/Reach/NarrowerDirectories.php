<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** Directories inside a chosen one that may do for the same job, and what each would reach. */
final class NarrowerDirectories
{
    private const MOST = 6;

    /**
     * Where several sites are reached, each of their document roots; where one is, its document root, or what lies
     * below it that has a name of its own.
     *
     * @param  list<SitePlaces>  $sites
     * @param  list<RemotePath>  $named  saved destinations
     * @return list<Reach> of directories inside the chosen one, never itself
     */
    public static function than(RemotePath $directory, array $sites, DirectoryTree $tree, array $named = []): array
    {
        $places = [];
        foreach ($sites as $site) {
            array_push($places, ...$site->directories);
        }
        array_push($places, ...$named);
        if (count(Reach::fromDirectory($directory, $sites)->touched()) < 2) {
            foreach (array_keys($tree->within($directory)) as $path) {
                $place = RemotePath::fromString($path);
                if (NameClue::isUploadFolder($place->name())) {
                    $places[] = $place;
                }
            }
        }
        $found = [];
        foreach ($places as $place) {
            if ($directory->contains($place) && ! $directory->equals($place)) {
                $found[$place->toString()] ??= Reach::fromDirectory($place, $sites);
            }
        }

        return array_slice(array_values($found), 0, self::MOST);
    }
}
