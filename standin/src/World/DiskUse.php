<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

use FilesystemIterator;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;

final class DiskUse
{
    /** Bytes of all files below a directory; 0 where there is none. */
    public static function of(string $directory): int
    {
        if (! is_dir($directory)) {
            return 0;
        }
        $bytes = 0;
        $walk = new RecursiveIteratorIterator(
            new RecursiveDirectoryIterator($directory, FilesystemIterator::SKIP_DOTS),
            RecursiveIteratorIterator::LEAVES_ONLY,
            RecursiveIteratorIterator::CATCH_GET_CHILD,
        );
        foreach ($walk as $file) {
            if ($file instanceof SplFileInfo && ! $file->isLink() && $file->isFile()) {
                $bytes += $file->getSize();
            }
        }

        return $bytes;
    }
}
