<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

/** Words out of a package, for a sentence of ours. */
final class Quote
{
    private const LONGEST = 120;

    /** Valid UTF-8 on one line, not too long; still hostile text. */
    public static function fromText(string $text): string
    {
        $line = trim((string) preg_replace('/\s+/u', ' ', mb_scrub($text)));

        return mb_strimwidth($line, 0, self::LONGEST, '…');
    }

    /** The line of a place in a text, from 1. */
    public static function line(string $text, int $offset): int
    {
        return substr_count($text, "\n", 0, $offset) + 1;
    }
}
