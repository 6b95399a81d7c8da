<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/** A file that is not compressed. */
final class PlainStream implements ByteSource
{
    /** @var resource */
    private $file;

    /** @throws PackageRefused */
    public function __construct(string $path, string $name)
    {
        $file = @fopen($path, 'rb');
        $this->file = $file === false ? throw PackageRefused::because($name, RefusalReason::NotAnArchive) : $file;
    }

    public function read(int $bytes): string
    {
        return (string) stream_get_contents($this->file, $bytes);
    }
}
