<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/**
 * Steps in their order, for one entry that a person chose. Pure: what was seen in, steps out.
 *
 * Paths of all entries begin at the login's root.
 */
final readonly class FileSteps
{
    /** @return list<FileChange> */
    public static function move(ManifestEntry $entry, RemotePath $directory): array
    {
        return [FileChange::rename(self::place($entry), $entry, $directory->child($entry->path->name()))];
    }

    /**
     * A directory and what lies in it, outermost first; links are left out, see left().
     *
     * @param  Manifest|null  $inside  of a directory, paths from it; null for a file
     * @return list<FileChange>
     */
    public static function copy(ManifestEntry $entry, RemotePath $to, ?Manifest $inside): array
    {
        if ($inside === null) {
            return [FileChange::copy(self::place($entry), $entry, $to)];
        }
        $steps = [FileChange::makeDirectory($to)];
        foreach ($inside->all() as $below) {
            $steps[] = match ($below->kind) {
                EntryKind::Directory => FileChange::makeDirectory($to->join($below->path)),
                EntryKind::File => FileChange::copy(
                    self::place($entry)->join($below->path),
                    $below->at(self::below($entry, $below)),
                    $to->join($below->path),
                ),
                default => null,
            };
        }

        return array_values(array_filter($steps));
    }

    /**
     * What lies in a directory first, and the directory itself last.
     *
     * @param  Manifest|null  $inside  of a directory, paths from it; null for a file
     * @return list<FileChange>
     */
    public static function setAside(ManifestEntry $entry, ?Manifest $inside): array
    {
        if ($inside === null) {
            return [FileChange::setAside(self::place($entry), $entry)];
        }
        $steps = [];
        foreach (array_reverse($inside->all()) as $below) {
            $place = self::place($entry)->join($below->path);
            $seen = $below->at(self::below($entry, $below));
            $steps[] = $below->kind === EntryKind::Directory
                ? FileChange::removeDirectory($place, $seen)
                : FileChange::setAside($place, $seen);
        }

        return [...$steps, FileChange::removeDirectory(self::place($entry), $entry)];
    }

    /**
     * Of those that have another mode. What is opened is opened from outside in, and what is closed the other way
     * round, so that the login never shuts itself out half way.
     *
     * @param  int|null  $files  twelve bits; null where files stay
     * @param  int|null  $directories  the same for directories
     * @param  Manifest|null  $inside  of a directory with all that lies in it, paths from it
     * @return list<FileChange>
     */
    public static function setModes(
        ManifestEntry $entry,
        ?int $files,
        ?int $directories,
        ?Manifest $inside = null,
    ): array {
        $steps = [];
        foreach ([$entry, ...self::all($entry, $inside)] as $one) {
            $mode = match ($one->kind) {
                EntryKind::File => $files,
                EntryKind::Directory => $directories,
                default => null,
            };
            if ($mode !== null && $one->mode !== $mode) {
                $steps[] = FileChange::setMode(self::place($one), $one, $mode);
            }
        }

        return ($directories ?? 0700) & 0100 ? $steps : array_reverse($steps);
    }

    /** @return list<ManifestEntry> links and devices, which are neither copied nor held */
    public static function left(?Manifest $inside): array
    {
        return array_values(array_filter(
            $inside?->all() ?? [],
            static fn (ManifestEntry $entry): bool => ! $entry->isFile() && $entry->kind !== EntryKind::Directory,
        ));
    }

    /** @return list<ManifestEntry> */
    private static function all(ManifestEntry $entry, ?Manifest $inside): array
    {
        return array_map(
            static fn (ManifestEntry $below): ManifestEntry => $below->at(self::below($entry, $below)),
            $inside?->all() ?? [],
        );
    }

    private static function below(ManifestEntry $entry, ManifestEntry $below): RelativePath
    {
        return RelativePath::fromString("$entry->path/$below->path");
    }

    private static function place(ManifestEntry $entry): RemotePath
    {
        return RemotePath::fromString("/$entry->path");
    }
}
