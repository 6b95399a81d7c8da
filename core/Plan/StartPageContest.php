<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RelativePath;

/**
 * Start pages that lie on the server beside those that are sent: of several in one directory visitors get the first by
 * the order of the site.
 */
final readonly class StartPageContest
{
    /**
     * @param  list<string>  $names  in the order of the site; the first that is there is shown
     * @param  string  $served  the directory visitors come in at; "" is the top
     */
    public function __construct(private array $names, private string $served = '')
    {
    }

    /**
     * @return array<string, Conflict> by the path of the start page on the server that the target does not have;
     *     StartPageWins where visitors go on getting that one, StartPageBeside where they get the one that is sent
     */
    public function between(Manifest $target, Manifest $live): array
    {
        $ranks = array_flip($this->names);
        $sent = [];
        foreach ($ranks === [] ? [] : $target->files() as $file) {
            $rank = $ranks[$file->path->name()] ?? null;
            $directory = (string) $file->path->parent();
            if ($rank !== null && $this->isVisited($file->path)) {
                $sent[$directory] = min($rank, $sent[$directory] ?? $rank);
            }
        }
        $found = [];
        foreach ($sent as $directory => $first) {
            foreach ($this->names as $rank => $name) {
                $path = ltrim("$directory/$name", '/');
                if ($target->get($path) === null && $live->get($path)?->isFile() === true) {
                    $found[$path] = $rank < $first ? Conflict::StartPageWins : Conflict::StartPageBeside;
                }
            }
        }

        return $found;
    }

    private function isVisited(RelativePath $path): bool
    {
        return $this->served === '' || str_starts_with($path->toString(), "$this->served/");
    }
}
