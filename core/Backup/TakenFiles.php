<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;

/** Files that a backup in the making has so far, and how each came to be in it. */
final class TakenFiles
{
    /** @var array<string, ManifestEntry> by path, with hashes */
    private array $entries = [];

    /** @var array<string, ManifestEntry> as they were listed when they were read */
    private array $listed = [];

    /** @var array<string, true> paths that were read this time */
    private array $come = [];

    /** @var array<string, true> paths that had changed when they had been read */
    private array $changed = [];

    /** @param  (\Closure(ManifestEntry): void)|null  $hear  is told of each file that has come */
    public function __construct(private readonly ?\Closure $hear)
    {
    }

    public function add(ManifestEntry $entry): void
    {
        $this->entries[$entry->path->toString()] = $entry;
        $this->listed[$entry->path->toString()] = $entry;
    }

    /** Of an earlier reading. */
    public function takeOver(ManifestEntry $entry): void
    {
        $this->add($entry);
    }

    /**
     * @param  int  $bytes  that came; more than were listed, where it grew meanwhile
     * @param  int  $at  seconds since 1970
     */
    public function fetched(ManifestEntry $entry, string $sha256, int $bytes, int $at): void
    {
        $path = $entry->path->toString();
        $this->listed[$path] = $entry;
        $isAsListed = $bytes === $entry->size;
        $this->entries[$path] = ($isAsListed ? $entry : $entry->grownTo($bytes))->withSha256($sha256, $at);
        $this->come[$path] = true;
        $this->hear === null || ($this->hear)($entry);
    }

    /**
     * Compares with what is listed by now: what is gone leaves, what is as it was stays.
     *
     * @return array<string, ManifestEntry> files that are to be read, or read again
     */
    public function then(Manifest $now): array
    {
        $listed = $now->all();
        $this->entries = array_intersect_key(
            $this->entries,
            array_flip(array_map(static fn (ManifestEntry $entry): string => $entry->path->toString(), $listed)),
        );
        $missing = [];
        foreach ($listed as $entry) {
            $path = $entry->path->toString();
            $before = $this->listed[$path] ?? null;
            if (! $entry->isFile()) {
                $this->add($entry);
            } elseif (! isset($this->entries[$path]) || $before === null || ! $entry->looksLike($before)) {
                $before === null || $entry->looksLike($before) || $this->changed[$path] = true;
                $missing[$path] = $entry;
            }
        }

        return $missing;
    }

    public function manifest(): Manifest
    {
        return Manifest::fromEntries($this->entries);
    }

    /** @return list<ManifestEntry> that were read this time */
    public function come(): array
    {
        return array_values(array_intersect_key($this->entries, $this->come));
    }

    public function backup(VerifiedBackup $verified): Backup
    {
        $come = $this->come();
        $earlier = array_filter(
            array_diff_key($this->entries, $this->come),
            static fn (ManifestEntry $entry): bool => $entry->isFile(),
        );
        $readings = array_filter(array_column($earlier, 'readAt'), static fn (?int $at): bool => $at !== null);

        return new Backup(
            $verified,
            count($come),
            array_sum(array_column($come, 'size')),
            count($earlier),
            $readings === [] ? null : min($readings),
            array_map(strval(...), array_keys(array_intersect_key($this->changed, $this->entries))),
        );
    }
}
