<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use RuntimeException;

final class StoreFailure extends RuntimeException
{
    public static function writing(string $what): self
    {
        return new self(
            "$what could not be written. Check the space and rights of the disk that Cellarium keeps its files on.",
        );
    }

    public static function missing(string $sha256): self
    {
        return new self("The contents $sha256 are not in the store.");
    }

    public static function damaged(string $path): self
    {
        return new self("The stored copy of $path does not have the bytes it had when it was taken.");
    }
}
