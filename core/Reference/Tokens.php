<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** All matches of a pattern in a document, however long it is. */
final class Tokens
{
    private const FLAGS = PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL;

    /** Up to here all are found at once, which is quicker; beyond some by some, so that memory stays flat. */
    private const AT_ONCE_BYTES = 300_000;

    private const TOGETHER = 200;

    /** Steps, many for each byte: a long script is one token. The patterns here take no byte back. */
    private const STEPS_FOR_A_BYTE = 20;

    private const FEWEST_STEPS = 1_000_000;

    /**
     * @return iterable<array<array{string|null, int}>> each with its groups and their places, in bytes
     *
     * @throws \RuntimeException when it cannot be read as a whole
     */
    public static function find(string $pattern, string $text): iterable
    {
        if (strlen($text) > self::AT_ONCE_BYTES) {
            return self::inParts($pattern, $text);
        }
        self::hold(preg_match_all($pattern, $text, $tokens, PREG_SET_ORDER | self::FLAGS));

        return $tokens;
    }

    /** @return \Generator<array<array{string|null, int}>> */
    private static function inParts(string $pattern, string $text): \Generator
    {
        $steps = (string) max(self::FEWEST_STEPS, strlen($text) * self::STEPS_FOR_A_BYTE);
        $at = 0;
        do {
            $tokens = [];
            $before = ini_set('pcre.backtrack_limit', $steps);
            try {
                while (count($tokens) < self::TOGETHER && ($found = preg_match(
                    $pattern,
                    $text,
                    $token,
                    self::FLAGS,
                    $at,
                )) === 1) {
                    $tokens[] = $token;
                    $at = $token[0][1] + max(1, strlen((string) $token[0][0]));
                }
            } finally {
                $before === false || ini_set('pcre.backtrack_limit', $before);
            }
            self::hold($found ?? 0);
            yield from $tokens;
        } while (count($tokens) === self::TOGETHER);
    }

    private static function hold(int|false $count): void
    {
        $count === false && throw new \RuntimeException('The document could not be read: '.preg_last_error_msg());
    }
}
