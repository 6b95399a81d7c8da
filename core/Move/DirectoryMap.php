<?php

declare(strict_types=1);

namespace Cellarium\Core\Move;

use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/**
 * Directories of one account and those of another that they become, and what follows from that for what lies inside.
 */
final readonly class DirectoryMap
{
    /** @param  list<array{RemotePath, RemotePath}>  $pairs  from and to */
    public function __construct(private array $pairs)
    {
    }

    /**
     * Where a directory comes to lie: with the innermost of the moved ones around it; one that is above several of them
     * becomes the innermost that is above all of theirs. Null where nothing says.
     */
    public function of(RemotePath $directory): ?RemotePath
    {
        $around = null;
        foreach ($this->pairs as [$from, $to]) {
            if ($from->contains($directory) && ($around === null || $from->depth() > $around[0]->depth())) {
                $around = [$from, $to];
            }
        }

        return $around === null ? $this->above($directory) : self::inside($around[1], $around[0]->toward($directory));
    }

    private static function inside(RemotePath $top, ?RelativePath $below): RemotePath
    {
        return $below === null ? $top : $top->join($below);
    }

    private function above(RemotePath $directory): ?RemotePath
    {
        $common = null;
        foreach ($this->pairs as [$from, $to]) {
            if (! $directory->contains($from)) {
                continue;
            }
            $common ??= $to->parent();
            while (! $common->contains($to) || $common->equals($to)) {
                $common = $common->parent();
            }
        }

        return $common;
    }
}
