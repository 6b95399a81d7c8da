<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;

/** The part of a tree that was listed so far, within its limits. */
final class SurveyedTree
{
    public int $directories = 0;

    /** @var list<ManifestEntry> */
    private array $entries = [];

    /** @var array<string, list<RemotePath>> */
    private array $temporary = [];

    /** @var list<string> paths that the protocol cannot name */
    private array $skipped = [];

    /** @var array<string, string> what a directory holds, in short, by its path below the root; empty ones left out */
    private array $digests = [];

    public function __construct(
        public readonly RemotePath $root,
        private readonly SurveyLimits $limits,
    ) {
    }

    public function count(): int
    {
        return count($this->entries);
    }

    /**
     * @param  list<RemoteEntry>  $entries
     * @return list<string> directories to look into, by their paths below the root
     *
     * @throws SurveyStopped
     */
    public function take(RemotePath $directory, array $entries): array
    {
        $this->directories++;
        $below = $this->root->toward($directory)?->toString();
        $this->lookForLoop($below ?? '', $entries);
        $this->lookForLies($directory, $entries);
        $next = [];
        foreach ($entries as $found) {
            if (! $found->isNameable) {
                $this->skipped[] = $below === null ? $found->name : "$below/$found->name";

                continue;
            }
            $path = RelativePath::fromString($below === null ? $found->name : "$below/$found->name");
            $run = TemporaryName::run($found->name);
            if ($run !== null) {
                $this->temporary[$run][] = $this->root->join($path);

                continue;
            }
            $this->entries[] = Surveyor::entry($path, $found);
            if ($found->kind === EntryKind::Directory) {
                $next[] = $path->toString();
            }
        }
        if (count($this->entries) > $this->limits->entries) {
            throw SurveyStopped::tooMany($this->limits->entries);
        }
        if ($next !== [] && substr_count($next[0], '/') >= $this->limits->depth) {
            throw SurveyStopped::tooDeep("$this->root/$next[0]", $this->limits->depth);
        }

        return $next;
    }

    public function survey(): Survey
    {
        return new Survey(Manifest::fromEntries($this->entries), $this->temporary, $this->skipped);
    }

    /**
     * A name that is a file and a directory at once: of the two one would be lost without a word.
     *
     * @param  list<RemoteEntry>  $entries
     *
     * @throws SurveyStopped
     */
    private function lookForLies(RemotePath $directory, array $entries): void
    {
        $kinds = [];
        foreach ($entries as $found) {
            $before = $kinds[$found->name] ??= $found->kind;
            $before === $found->kind || throw SurveyStopped::contradicts($directory->child($found->name)->toString());
        }
    }

    /**
     * A directory that holds, to the byte and the second, what the two above it hold, and directories among it, is the
     * same one each time.
     *
     * @param  list<RemoteEntry>  $entries
     */
    private function lookForLoop(string $path, array $entries): void
    {
        if (! in_array(EntryKind::Directory, array_column($entries, 'kind'), true)) {
            return;
        }
        $facts = array_map(
            static fn (
                RemoteEntry $entry,
            ): string => "$entry->name\0{$entry->kind->value}\0$entry->size\0$entry->modified",
            $entries,
        );
        sort($facts);
        $digest = hash('xxh128', implode("\n", $facts));
        $this->digests[$path] = $digest;
        $above = self::above($path);
        $twice = $above === null ? null : self::above($above);
        if (
            $twice !== null
            && ($this->digests[$above] ?? '') === $digest
            && ($this->digests[$twice] ?? '') === $digest
        ) {
            throw SurveyStopped::loop(rtrim($this->root->toString(), '/')."/$path");
        }
    }

    /** The path of the directory above, "" for the root, null above that. */
    private static function above(string $path): ?string
    {
        $slash = strrpos($path, '/');

        return match (true) {
            $path === '' => null,
            $slash === false => '',
            default => substr($path, 0, $slash),
        };
    }
}
