<?php

declare(strict_types=1);

namespace Cellarium\Core\Move;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\SitePlaces;

/** Reasons that keep sites from being made in other directories. Pure: directories in, sentences out. */
final readonly class MoveCheck
{
    /**
     * @param  array<string, array{RemotePath, RemotePath}>  $sites  where each begins and is to begin, by domain
     * @param  list<SitePlaces>  $there  what is served from the other account already
     */
    public function __construct(private array $sites, private array $there)
    {
    }

    /** Why a site cannot begin where it is to; null where it can. */
    public function objection(string $domain): ?string
    {
        [$from, $to] = $this->sites[$domain];
        foreach ($this->there as $other) {
            foreach ($other->directories as $place) {
                if (self::meet($place, $to)) {
                    return "$other->domain is served from $place there.";
                }
            }
        }
        foreach ($this->sites as $name => [$otherFrom, $otherTo]) {
            if ($name === $domain || ! self::meet($otherTo, $to)) {
                continue;
            }
            // One that lay inside another may lie inside it again.
            $wereNested = ($otherFrom->contains($from) && $otherTo->contains($to))
                || ($from->contains($otherFrom) && $to->contains($otherTo));
            if (! $wereNested || $otherTo->equals($to) !== $otherFrom->equals($from)) {
                return "$name would begin in $otherTo, and one would replace the other.";
            }
        }

        return null;
    }

    /**
     * What an FTP user would reach there and did not reach before.
     *
     * @return list<string> domains
     */
    public function newlyReached(RemotePath $from, RemotePath $to): array
    {
        $domains = [];
        foreach ($this->there as $other) {
            foreach ($other->directories as $place) {
                self::meet($place, $to) && $domains[$other->domain] = true;
            }
        }
        foreach ($this->sites as $domain => [$before, $after]) {
            self::meet($after, $to) && ! self::meet($before, $from) && $domains[$domain] = true;
        }

        return array_map(strval(...), array_keys($domains));
    }

    private static function meet(RemotePath $one, RemotePath $other): bool
    {
        return $one->contains($other) || $other->contains($one);
    }
}
