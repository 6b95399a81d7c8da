<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** All references of a site, resolved. */
final readonly class References
{
    /**
     * @param  list<BrokenReference>  $broken  in the order of files and lines, places in pages at the end
     * @param  array<string, array<string, int>>  $links  how often a file refers to another, by both paths
     * @param  array<string, array{int, string, int}>  $hosts  how often a host is named, and where first (file,
     *     line)
     * @param  array<string, array{int, string, int}>  $shown  by image, how wide it is shown at the most (CSS pixels),
     *     and in which file and line; only those that always say so
     */
    public function __construct(
        public array $broken,
        public array $links,
        public array $hosts,
        public array $shown,
    ) {
    }
}
