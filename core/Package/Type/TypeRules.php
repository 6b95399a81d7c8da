<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\PathPatterns;
use Cellarium\Core\Path\RelativePath;

/** The rules of a type for a deployment. */
final class TypeRules
{
    /** What leaves here: all but what never does. */
    public static function target(Manifest $contents, ?PackageType $type): Manifest
    {
        if ($type === null || $type->never === []) {
            return $contents;
        }
        $never = new PathPatterns($type->never);

        return Manifest::fromEntries(array_filter(
            $contents->all(),
            static fn (ManifestEntry $entry): bool => ! $never->match($entry->path->toString()),
        ));
    }

    /** The directory of a package that visitors come in at; "" is its top. */
    public static function servedFolder(?PackageType $type): string
    {
        return $type?->place === Place::AboveDocumentRoot ? trim((string) $type->directory, '/') : '';
    }

    /** What visitors could fetch of a package once it is live, by the paths it has in the package. */
    public static function fetchable(Manifest $contents, ?PackageType $type): Manifest
    {
        $folder = self::servedFolder($type);
        $target = self::target($contents, $type);

        return $folder === '' ? $target : $target->under($folder);
    }

    /**
     * The same with its public folder under the name that the document root has.
     *
     * @param  RelativePath  $public  from where the application begins to the document root
     */
    public static function aroundDocumentRoot(Manifest $target, PackageType $type, RelativePath $public): Manifest
    {
        $folder = RelativePath::fromString(self::servedFolder($type));
        $entries = [];
        foreach ($target->all() as $entry) {
            $below = $entry->path->below($folder);
            $entries[] = match (true) {
                $entry->path->toString() === $folder->toString() => $entry->at($public),
                $below !== null => $entry->at(RelativePath::fromString("$public/$below")),
                default => $entry,
            };
        }

        return Manifest::fromEntries($entries);
    }

    /**
     * The same with the modes of what must be writable; directories of these that nobody brings are made.
     *
     * @param  string  $below  where it goes, "" is the top
     */
    public static function writable(Manifest $target, ?PackageType $type, string $below, Manifest $live): Manifest
    {
        $entries = [];
        foreach ($type->writable ?? [] as $writable) {
            $path = RelativePath::fromString(ltrim("$below/$writable->path", '/'));
            $entry = $target->get($path) ?? $live->get($path) ?? new ManifestEntry($path, EntryKind::Directory);
            $entries[] = $entry->withMode($writable->mode);
            foreach ($path->ancestors() as $above) {
                $entries[] = $target->get($above) ?? new ManifestEntry($above, EntryKind::Directory);
            }
        }

        // An outer one may be writable itself, so what has a mode counts.
        usort($entries, static fn (ManifestEntry $a, ManifestEntry $b): int => ($a->mode ?? -1) <=> ($b->mode ?? -1));

        return $target->with($entries);
    }

    /**
     * What stays on the server, as patterns below the document root.
     *
     * @param  string  $below  where it goes, "" is the document root
     * @return list<PathPattern>
     */
    public static function keeps(?PackageType $type, string $below): array
    {
        return array_map(static fn (PathPattern $pattern): PathPattern => $pattern->below($below), $type->keeps ?? []);
    }

    /**
     * Files of the version before that are there as it brought them; whoever changed one since is asked by keeping it.
     *
     * @param  string  $below  where it lies, "" is the document root
     * @return list<string> paths below the document root
     */
    public static function untouched(Manifest $before, Manifest $live, string $below): array
    {
        $paths = [];
        foreach ($before->files() as $file) {
            $path = ltrim("$below/$file->path", '/');
            $present = $live->get($path);
            $isSame = $present?->isFile() === true
                && $present->size === $file->size
                && ($present->sha256 === null || $present->sha256 === $file->sha256);
            $isSame && $paths[] = $path;
        }

        return $paths;
    }
}
