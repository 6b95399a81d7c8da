<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;

/** What the rules of a type do to a deployment. */
final class TypeRules
{
    /** What leaves here: all but what never does. */
    public static function target(Manifest $contents, ?PackageType $type): Manifest
    {
        if ($type === null || $type->never === []) {
            return $contents;
        }

        return Manifest::of(array_filter(
            $contents->all(),
            static fn (ManifestEntry $entry): bool => ! Glob::any($type->never, $entry->path->toString()),
        ));
    }

    /**
     * What stays on the server, as patterns below the document root.
     *
     * @param  string  $below  where it goes, "" is the document root
     * @return list<string>
     */
    public static function keeps(?PackageType $type, string $below): array
    {
        return array_map(
            static fn (Glob $glob): string => ltrim("$below/$glob->pattern", '/'),
            $type->keeps ?? [],
        );
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
