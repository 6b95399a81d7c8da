<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** A file of our own that is either the old one or the new one, whole, whenever the machine stops. */
final readonly class WholeFile
{
    /**
     * @param  string|iterable<string>  $text  whole, or in pieces
     * @param  int|null  $mode  of the file, where it is not for whoever may read the directory
     *
     * @throws StoreFailure with the old file untouched
     */
    public static function write(string $file, string|iterable $text, ?int $mode = null): void
    {
        $directory = dirname($file);
        if (! is_dir($directory) && ! @mkdir($directory, 0700, true) && ! is_dir($directory)) {
            throw StoreFailure::writing($directory);
        }
        $stream = @fopen("$file.new", 'wb');
        if ($stream === false) {
            throw StoreFailure::writing($file);
        }
        try {
            if ($mode !== null && ! @chmod("$file.new", $mode)) {
                throw StoreFailure::writing($file);
            }
            foreach (is_string($text) ? [$text] : $text as $piece) {
                if (@fwrite($stream, $piece) !== strlen($piece)) {
                    throw StoreFailure::writing($file);
                }
            }
            if (! fsync($stream)) {
                throw StoreFailure::writing($file);
            }
        } finally {
            fclose($stream);
        }
        if (! @rename("$file.new", $file)) {
            throw StoreFailure::writing($file);
        }
        clearstatcache(true, $file);
        self::syncDirectory($directory);
    }

    /**
     * Has the disk keep which names a directory holds; without it a file that was written may be without its name after
     * a power cut. On Linux a directory is opened for reading like a file, and fsync(2) takes it.
     *
     * @throws StoreFailure
     */
    public static function syncDirectory(string $directory): void
    {
        $stream = @fopen($directory, 'r');
        $synced = $stream !== false && @fsync($stream);
        $stream === false || fclose($stream);
        if (! $synced) {
            throw StoreFailure::writing($directory);
        }
    }
}
