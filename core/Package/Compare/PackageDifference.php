<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Compare;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;

/** The difference from one version of a package to another one, file by file. */
final readonly class PackageDifference
{
    /**
     * @param  list<ChangedFile>  $files  in the order of their paths
     * @param  int  $same  how many files are the same
     */
    private function __construct(public array $files, public int $same)
    {
    }

    public static function between(Manifest $before, Manifest $after): self
    {
        $files = [];
        $same = 0;
        $gone = [];
        foreach ($before->files() as $entry) {
            if ($after->get($entry->path)?->isFile() !== true) {
                $gone[(string) $entry->sha256][] = $entry;
            }
        }
        foreach ($after->files() as $entry) {
            $was = $before->get($entry->path);
            if ($was?->isFile() === true) {
                $was->sha256 === $entry->sha256
                    ? $same++
                    : $files[] = new ChangedFile(FileChange::Changed, $was, $entry);

                continue;
            }
            // The same contents under another name; empty files are all alike.
            $gone[(string) $entry->sha256] ??= [];
            $was = $entry->size > 0 ? array_shift($gone[(string) $entry->sha256]) : null;
            $files[] = new ChangedFile($was === null ? FileChange::Added : FileChange::Renamed, $was, $entry);
        }
        foreach ($gone as $entries) {
            foreach ($entries as $entry) {
                $files[] = new ChangedFile(FileChange::Gone, $entry, null);
            }
        }
        usort($files, static fn (ChangedFile $a, ChangedFile $b): int => strcmp($a->path(), $b->path()));

        return new self($files, $same);
    }

    /** @return list<ChangedFile> */
    public function of(FileChange $change): array
    {
        return array_values(array_filter(
            $this->files,
            static fn (ChangedFile $file): bool => $file->change === $change,
        ));
    }

    /** How many bytes more the other version has; less than zero where it has fewer. */
    public function bytes(): int
    {
        return array_sum(array_map(
            static fn (ChangedFile $file): int => self::size($file->after) - self::size($file->before),
            $this->files,
        ));
    }

    private static function size(?ManifestEntry $entry): int
    {
        return $entry === null ? 0 : $entry->size;
    }
}
