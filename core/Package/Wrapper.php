<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RelativePath;

/** A folder that holds everything else belongs to the packing, not to the site. */
final class Wrapper
{
    /**
     * Takes away folders that hold all there is, one after the other, as long as no file stands beside them.
     *
     * @return array{Manifest, string|null} the manifest without them, and what was lifted
     */
    public static function lift(Manifest $manifest): array
    {
        $lifted = [];
        while (($folder = self::only($manifest)) !== null) {
            $lifted[] = $folder;
            $entries = [];
            foreach ($manifest->all() as $entry) {
                $below = array_slice($entry->path->segments(), 1);
                if ($below !== []) {
                    $entries[] = $entry->at(RelativePath::fromString(implode('/', $below)));
                }
            }
            $manifest = Manifest::fromEntries($entries);
        }

        return [$manifest, $lifted === [] ? null : implode('/', $lifted)];
    }

    private static function only(Manifest $manifest): ?string
    {
        $tops = [];
        foreach ($manifest->all() as $entry) {
            if ($entry->path->depth() === 1 && $entry->isFile()) {
                return null;
            }
            $tops[$entry->path->segments()[0]] = true;
        }

        return count($tops) === 1 ? (string) array_key_first($tops) : null;
    }
}
