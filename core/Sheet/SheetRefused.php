<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use RuntimeException;

/** A file that is not, or no longer, the sheet that was signed here. */
final class SheetRefused extends RuntimeException
{
    private function __construct(public readonly SheetFault $fault, string $message, ?\Throwable $cause = null)
    {
        parent::__construct($message, 0, $cause);
    }

    public static function notOne(string $why, ?\Throwable $cause = null): self
    {
        return new self(SheetFault::NotASheet, "This is no signed sheet: $why.", $cause);
    }

    public static function altered(): self
    {
        return new self(
            SheetFault::Altered,
            'This sheet was altered after it was signed: its facts and its signature do not belong together.',
        );
    }

    public static function foreign(string $key): self
    {
        return new self(
            SheetFault::Foreign,
            "This sheet is as it was signed, but by another key than the one that is trusted: $key.",
        );
    }
}
