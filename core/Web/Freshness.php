<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

/** For how long a browser may show an answer again without asking (RFC 9111, 4.2). */
final class Freshness
{
    /** Where the server says nothing, browsers take this share of the time since the file was changed (4.2.2). */
    private const HEURISTIC = 0.1;

    /** What is held for longer is held for ever. */
    private const LONGEST = 315_360_000;

    /**
     * Seconds, counted from when the server gave it; 0 where a browser asks each time.
     *
     * @param  int  $now  Unix time, where the answer has no date
     */
    public static function seconds(WebAnswer $answer, int $now): int
    {
        $said = self::directives($answer->headers['cache-control'] ?? '');
        $date = self::time($answer, 'date');
        $expires = $answer->headers['expires'] ?? null;
        $modified = self::time($answer, 'last-modified');

        return min(self::LONGEST, max(0, match (true) {
            isset($said['no-store']), isset($said['no-cache']) => 0,
            isset($said['max-age']) => (int) $said['max-age'],
            // What is no date is past (5.3).
            $expires !== null => (self::time($answer, 'expires') ?? 0) - ($date ?? $now),
            $date !== null && $modified !== null => (int) (self::HEURISTIC * ($date - $modified)),
            default => 0,
        }));
    }

    /** @return array<string, string> by name in small letters */
    private static function directives(string $field): array
    {
        $found = [];
        foreach (explode(',', $field) as $directive) {
            [$name, $value] = explode('=', trim($directive), 2) + [1 => ''];
            $found[strtolower($name)] ??= trim($value, '" ');
        }

        return $found;
    }

    private static function time(WebAnswer $answer, string $field): ?int
    {
        $time = \DateTimeImmutable::createFromFormat(
            '!'.\DATE_RFC7231,
            $answer->headers[$field] ?? '',
            new \DateTimeZone('UTC'),
        );

        return $time === false ? null : $time->getTimestamp();
    }
}
