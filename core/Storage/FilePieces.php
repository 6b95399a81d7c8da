<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** The bytes of a file of ours, a piece at a time. */
final class FilePieces
{
    private const BYTES = 262_144;

    /**
     * @return \Generator<string>
     *
     * @throws StoreFailure where it cannot be read whole
     */
    public static function read(string $file): \Generator
    {
        $stream = @fopen($file, 'rb');
        if ($stream === false) {
            throw StoreFailure::reading($file);
        }
        try {
            while (! feof($stream)) {
                $piece = @fread($stream, self::BYTES);
                yield $piece === false ? throw StoreFailure::reading($file) : $piece;
            }
        } finally {
            fclose($stream);
        }
    }
}
