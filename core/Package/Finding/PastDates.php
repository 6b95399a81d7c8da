<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Reference\Html;

/** Sentences that invite to something on a day that has passed. */
final readonly class PastDates
{
    private const MONTH = '(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]{0,6}+\.?';

    /** "12 March 2026", "March 12th, 2026", "2026-03-12", "12.3.2026" and "3/12/2026". */
    private const DATE = '~\b(?:(\d{1,2})(?:st|nd|rd|th)?\.?\s+(?:of\s+)?'.self::MONTH.',?\s+(20\d\d)'
        .'|'.self::MONTH.'\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(20\d\d)'
        .'|(20\d\d)-(\d\d)-(\d\d)'
        .'|(\d{1,2})[./](\d{1,2})[./](20\d\d))\b~i';

    private const INVITES = '/\b(?:join us|save the date|register|sign up|book (?:now|by|your|early|until)|tickets?'
        .'|doors open|opens|starts|begins|takes place|will (?:be|take|open|start|close)|on sale|upcoming|see you'
        .'|deadline|offer (?:ends|runs)|ends on|valid until|open until'
        .'|next (?:event|meeting|market|sailing|course))\b/i';

    private const LOOKS_BACK = '/\b(?:was|were|since|founded|established|opened|started|began|took place|updated'
        .'|published|posted|archive|copyright|first|until recently|had|ago)\b|©/i';

    /** Elements within a sentence; all others end one. */
    private const WITHIN = '~\A(?:</?(?:a|b|strong|em|i|span|time|abbr|small|mark|u|sup|sub|code|wbr)\b[^>]*+>)++\z~i';

    private const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

    /** @param  string  $today  as YYYY-MM-DD */
    public function __construct(private string $today)
    {
    }

    /** @return list<array{string, int}> the sentence, and the line of its day */
    public function in(string $html): array
    {
        // Most pages name no day that has passed at all.
        if (preg_match('/\b20\d\d\b/', $html) !== 1 || $this->past($html) === null || ! self::invites($html)) {
            return [];
        }
        $found = [];
        foreach (self::sentences($html) as [$sentence, $from, $places]) {
            $at = self::invites($sentence) && preg_match(self::LOOKS_BACK, $sentence) !== 1
                ? $this->past($sentence)
                : null;
            if ($at !== null) {
                $found[] = [$sentence, Quote::line($html, self::place($places, $from + $at))];
            }
        }

        return $found;
    }

    private static function invites(string $text): bool
    {
        return preg_match(self::INVITES, $text) === 1;
    }

    /** Where the day stands, null where none in it has passed. */
    private function past(string $text): ?int
    {
        $at = 0;
        while (preg_match(self::DATE, $text, $one, PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL, $at) === 1) {
            if (self::day(array_map(static fn (array $group): string => (string) $group[0], $one)) < $this->today) {
                return $one[0][1];
            }
            $at = $one[0][1] + strlen((string) $one[0][0]);
        }

        return null;
    }

    /**
     * @param  array<string>  $match
     * @return string as YYYY-MM-DD, of two readings the later
     */
    private static function day(array $match): string
    {
        $month = static fn (string $name): int => (int) array_search(
            strtolower(substr($name, 0, 3)),
            self::MONTHS,
            true,
        ) + 1;
        $days = match (true) {
            $match[1] !== '' => [[$match[3], $month($match[2]), $match[1]]],
            $match[4] !== '' => [[$match[6], $month($match[4]), $match[5]]],
            $match[7] !== '' => [[$match[7], $match[8], $match[9]]],
            default => [[$match[12], $match[11], $match[10]], [$match[12], $match[10], $match[11]]],
        };
        $real = array_filter(
            $days,
            static fn (array $day): bool => checkdate((int) $day[1], (int) $day[2], (int) $day[0]),
        );
        $written = array_map(
            static fn (array $day): string => sprintf('%04d-%02d-%02d', ...array_map(intval(...), $day)),
            $real,
        );

        // No day at all has not passed.
        return $written === [] ? '9999-12-31' : max($written);
    }

    /**
     * @return iterable<array{string, int, list<array{int, int}>}> each with its place in its paragraph, and which byte
     *     of that stands where in the page
     */
    private static function sentences(string $html): iterable
    {
        [$text, $places, $end] = ['', [], 0];
        foreach (Html::visible($html) as [$part, $offset]) {
            if ($text !== '' && preg_match(self::WITHIN, substr($html, $end, $offset - $end)) !== 1) {
                yield from self::split($text, $places);
                [$text, $places] = ['', []];
            }
            $places[] = [strlen($text), $offset];
            $text .= $part;
            $end = $offset + strlen($part);
        }
        yield from self::split($text, $places);
    }

    /**
     * @param  list<array{int, int}>  $places
     * @return iterable<array{string, int, list<array{int, int}>}>
     */
    private static function split(string $text, array $places): iterable
    {
        $parts = preg_split(
            '/(?<=[!?])\s|(?<=[^\d\s][^\d\s]\.)\s/',
            $text,
            -1,
            PREG_SPLIT_OFFSET_CAPTURE | PREG_SPLIT_NO_EMPTY,
        ) ?: [];
        foreach ($parts as [$sentence, $at]) {
            yield [$sentence, $at, $places];
        }
    }

    /** @param  list<array{int, int}>  $places */
    private static function place(array $places, int $at): int
    {
        $offset = 0;
        foreach ($places as [$from, $there]) {
            $from <= $at && $offset = $there + $at - $from;
        }

        return $offset;
    }
}
