<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Contents;

use Cellarium\Core\Path\RelativePath;

/** Files that operating systems, editors and version control leave in archives; they are left out. */
final class Leftovers
{
    private const NAMES = [
        '__MACOSX',
        '.DS_Store',
        '.AppleDouble',
        '.Spotlight-V100',
        '.Trashes',
        '.fseventsd',
        '$RECYCLE.BIN',
        'Thumbs.db',
        'ehthumbs.db',
        'desktop.ini',
        '.directory',
        '.git',
        '.svn',
        '.hg',
        '.bzr',
        'CVS',
        '.idea',
        '.vscode',
    ];

    /** @return RelativePath|null the outermost that is one, the folder of a version control say; null where none is */
    public static function within(RelativePath $path): ?RelativePath
    {
        foreach ([...$path->ancestors(), $path] as $one) {
            if (self::isOne($one)) {
                return $one;
            }
        }

        return null;
    }

    public static function isOne(RelativePath $path): bool
    {
        return array_intersect($path->segments(), self::NAMES) !== []
            // The other half of a file that a Mac has written to a foreign disk.
            || str_starts_with($path->name(), '._');
    }
}
