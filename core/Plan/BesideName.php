<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;

/**
 * The name under which a file of the server stays beside the package's of the same name: "prices.live-2026-11-19.html".
 *
 * The ending stays, so that a program is never given out as text.
 */
final readonly class BesideName
{
    /** Of what comes before; servers take no more than 255 bytes for a name. */
    private const MOST_BYTES = 200;

    /** @param  Manifest  ...$taken  whose names it must not be */
    public static function forFile(ManifestEntry $file, Manifest ...$taken): RelativePath
    {
        $name = $file->path->name();
        $dot = (int) strrpos($name, '.');
        [$stem, $ending] = $dot === 0 ? [$name, ''] : [substr($name, 0, $dot), substr($name, $dot)];
        $stem = mb_strcut($stem, 0, self::MOST_BYTES).'.live'
            .($file->modified === null ? '' : gmdate('-Y-m-d', $file->modified));
        $path = $file->path->renamed("$stem$ending");
        for ($number = 2; self::isIn($path, $taken); $number++) {
            $path = $file->path->renamed("$stem-$number$ending");
        }

        return $path;
    }

    /** @param  array<Manifest>  $manifests */
    private static function isIn(RelativePath $path, array $manifests): bool
    {
        foreach ($manifests as $manifest) {
            if ($manifest->get($path) !== null) {
                return true;
            }
        }

        return false;
    }
}
