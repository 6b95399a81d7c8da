<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;

/** The places of a swap, all in one directory: the document root, the tree that is laid for it, and the old one. */
final readonly class SwapPaths
{
    public RemotePath $parent;

    public RemotePath $laid;

    public RemotePath $old;

    /** One archive on its way, where one is sent. */
    public RemotePath $archive;

    /** @throws \InvalidArgumentException where there is nothing above it */
    public function __construct(public RemotePath $root, string $run)
    {
        if ($root->depth() === 0) {
            throw new \InvalidArgumentException('nothing lies beside the top of a login');
        }
        $this->parent = $root->parent();
        $this->laid = $this->parent->child(TemporaryName::directory($run, 'laid'));
        $this->old = $this->parent->child(TemporaryName::directory($run, 'old'));
        $this->archive = $this->parent->child(TemporaryName::forRun($run, 0));
    }

    /** @param  string  $path  "" for the directory itself */
    public static function within(RemotePath $directory, string $path): RemotePath
    {
        return $path === '' ? $directory : $directory->join(RelativePath::fromString($path));
    }

    /**
     * @param  list<RemoteEntry>  $entries  of the parent
     * @return array{root: RemoteEntry|null, laid: RemoteEntry|null, old: RemoteEntry|null}
     */
    public function among(array $entries): array
    {
        $found = ['root' => null, 'laid' => null, 'old' => null];
        foreach ($entries as $entry) {
            $which = match ($entry->name) {
                $this->root->name() => 'root',
                $this->laid->name() => 'laid',
                $this->old->name() => 'old',
                default => null,
            };
            $which === null || $found[$which] = $entry;
        }

        return $found;
    }

    /**
     * What runs have left beside the root, by run and what it is.
     *
     * @param  list<RemoteEntry>  $entries  of the parent
     * @return list<array{string, string, RemotePath}>
     */
    public function leftBy(array $entries): array
    {
        $left = [];
        foreach ($entries as $entry) {
            $of = $entry->kind === EntryKind::Directory ? TemporaryName::ofDirectory($entry->name) : null;
            $of === null || $left[] = [...$of, $this->parent->child($entry->name)];
        }

        return $left;
    }
}
