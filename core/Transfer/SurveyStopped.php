<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use RuntimeException;

/** Looking at a server was given up before all of it was seen; nothing is known of the rest. */
final class SurveyStopped extends RuntimeException
{
    public static function tooMany(int $most): self
    {
        return new self(
            'There are more '
                ."than $most files and directories. Raise the limit in the settings if the site really is this large.",
        );
    }

    public static function tooDeep(string $path, int $most): self
    {
        return new self(
            "$path lies more "
                ."than $most directories deep. Look whether a directory holds itself; raise the limit in the settings "
                .'if not.',
        );
    }

    public static function tooLong(int $seconds, int $seen): self
    {
        return new self(
            'Looking took longer '
                ."than $seconds seconds; $seen files and directories were seen by then. Try again later, or raise the "
                .'limit in the settings.',
        );
    }

    public static function contradicts(string $path): self
    {
        return new self(
            "$path is listed twice, as different kinds: what the server lists cannot be true. Nothing was touched. Try "
                .'again later; if it stays so, ask the provider what lies there.',
        );
    }

    public static function loop(string $path): self
    {
        return new self(
            "$path holds the same as the two directories above it: the server goes round in a circle there. Ask the "
                .'provider what this directory is.',
        );
    }
}
