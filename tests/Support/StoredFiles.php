<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Storage\ContentStore;

/** Texts in a store, as what is to be deployed. */
final class StoredFiles
{
    /** @param  array<string, string>  $texts  by path */
    public static function in(ContentStore $store, array $texts): Manifest
    {
        $entries = [];
        foreach ($texts as $path => $text) {
            $relative = RelativePath::fromString($path);
            $content = $store->put([$text]);
            $entries[] = new ManifestEntry($relative, EntryKind::File, $content->size, 1, null, $content->sha256);
            foreach ($relative->ancestors() as $above) {
                $entries[] = new ManifestEntry($above, EntryKind::Directory);
            }
        }

        return Manifest::fromEntries($entries);
    }
}
