<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** A file that is needed for a moment, because something wants a name on the disk; gone with the object. */
final class ScratchFile
{
    private function __construct(public readonly string $path)
    {
    }

    /** @throws StoreFailure */
    public static function create(): self
    {
        $path = @tempnam(sys_get_temp_dir(), 'cellarium-');

        return $path === false ? throw StoreFailure::writing('A file for a moment') : new self($path);
    }

    /**
     * @param  resource  $stream  read from where it stands to its end
     *
     * @throws StoreFailure
     */
    public static function fromStream($stream): self
    {
        $file = self::create();
        $sink = @fopen($file->path, 'wb');
        if ($sink === false) {
            throw StoreFailure::writing($file->path);
        }
        while (($piece = (string) fread($stream, 1 << 18)) !== '') {
            @fwrite($sink, $piece) === strlen($piece) || throw StoreFailure::writing($file->path);
        }
        fclose($sink) || throw StoreFailure::writing($file->path);

        return $file;
    }

    public function __destruct()
    {
        @unlink($this->path);
    }
}
