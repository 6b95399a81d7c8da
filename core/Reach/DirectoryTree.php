<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Connection\EntryKind;
use Cellarium\Core\Connection\RemoteReader;
use Cellarium\Core\Path\RemotePath;

/** The directories of an account down to a depth; what lies deeper was not looked at, which is not the same as empty. */
final readonly class DirectoryTree
{
    /** @param  array<string, bool>  $directories whether it was looked into, by path, in order */
    private function __construct(public array $directories)
    {
    }

    /**
     * @param  int  $depth  levels below the root that are listed
     * @param  int  $most  listings made at the most
     *
     * @throws \Cellarium\Core\Connection\RemoteFailure
     */
    public static function look(RemoteReader $remote, int $depth = 4, int $most = 150): self
    {
        $found = [];
        $queue = [RemotePath::root()];
        while (($directory = array_shift($queue)) !== null) {
            $looked = $directory->depth() <= $depth && $most-- > 0;
            $found[$directory->toString()] = $looked;
            foreach ($looked ? $remote->list($directory) : [] as $entry) {
                if ($entry->kind === EntryKind::Directory) {
                    $queue[] = $directory->child($entry->name);
                }
            }
        }
        // By segment, so that a directory stands right above what lies in it.
        uksort($found, static fn (string $a, string $b): int => strcmp(strtr($a, '/', "\x01"), strtr($b, '/', "\x01")));

        return new self($found);
    }
}
