<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

use RuntimeException;

/** A refusal on its way to the client, thrown by a command and sent by the session (RFC 959 section 4.2). */
final class Reply extends RuntimeException
{
    public static function notFound(string $path): self
    {
        return new self("$path: no such file or directory", 550);
    }

    public static function forbidden(string $path): self
    {
        return new self("$path: permission denied", 550);
    }

    public static function badName(): self
    {
        return new self('This is not a usable name', 553);
    }

    public static function full(): self
    {
        return new self('No space left in this account', 552);
    }
}
