<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\WireName;

/**
 * Reads what LIST answers where a server has no machine listings. RFC 959 gives no form for it; two are in use, the
 * lines of ls(1) and those of the DIR command. A listing that is neither, line by line, is not understood.
 *
 * Times have no zone, minutes at best and sometimes no year, so they are for looking at and not for comparing.
 */
final class ListListing implements ListingLines
{
    private const MONTHS = [
        'jan' => 1,
        'feb' => 2,
        'mar' => 3,
        'apr' => 4,
        'may' => 5,
        'jun' => 6,
        'jul' => 7,
        'aug' => 8,
        'sep' => 9,
        'oct' => 10,
        'nov' => 11,
        'dec' => 12,
    ];

    /** One blank between time and name, so that blanks that belong to the name stay. */
    private const UNIX = '/\A([-bcdlps])([-r][-w][-xsS][-r][-w][-xsS][-r][-w][-xtT])[.+@]?'
        .'\s+\d+\s+\S+\s+(?:\S+\s+)?(\d+|\d+,\s*\d+)\s+'
        .'(?:([A-Za-z]{3})\s+(\d{1,2})\s+(?:(\d{1,2}):(\d\d)|(\d{4}))'
        .'|(\d{4})-(\d\d)-(\d\d)\s+(\d\d):(\d\d)(?::\d\d)?) (.+)\z/s';

    private const DOS = '/\A(\d\d)-(\d\d)-(\d\d|\d{4})\s+(\d\d):(\d\d)\s?(AM|PM)?\s+(?:<(DIR|JUNCTION|'
        .'SYMLINKD?)> {1,10}|(\d+) )(.+)\z/s';

    /** Which of the two forms the first line had; the others have to have it too. */
    private ?string $style = null;

    private bool $begun = false;

    /**
     * @param  string  $what  "listing /www", for what is not understood
     * @param  int  $now  seconds since 1970, for dates without a year
     */
    public function __construct(
        private readonly string $what,
        private readonly int $now,
    ) {
    }

    public function entry(string $line): ?RemoteEntry
    {
        $first = ! $this->begun;
        $this->begun = true;
        if ($first && preg_match('/\Atotal \d+\z/i', $line) === 1) {
            return null;
        }
        $this->style ??= preg_match(self::DOS, $line) === 1 ? self::DOS : self::UNIX;
        if (preg_match($this->style, $line, $match, PREG_UNMATCHED_AS_NULL) !== 1) {
            throw RemoteFailure::while($this->what, FailureReason::NotUnderstood, $line);
        }
        $entry = $this->style === self::DOS ? self::dos($match) : self::unix($match, $this->now);
        if ($entry === null || $entry->name === '' || strpbrk($entry->name, "/\0") !== false) {
            throw RemoteFailure::while($this->what, FailureReason::NotUnderstood, $line);
        }

        return $entry->name === '.' || $entry->name === '..' ? null : $entry->named(WireName::fromWire($entry->name));
    }

    /** @param  array<string|null>  $match */
    private static function unix(array $match, int $now): ?RemoteEntry
    {
        [, $type, $rights, $size, $month, $day, $hour, $minute, $year, $y, $m, $d, $h, $i, $name] = $match;
        $kind = match ($type) {
            '-' => EntryKind::File,
            'd' => EntryKind::Directory,
            'l' => EntryKind::Link,
            default => EntryKind::Other,
        };
        if ($kind === EntryKind::Link) {
            $parts = self::nameAndTarget((string) $name, (int) $size);
            if ($parts === null) {
                return null;
            }
            [$name, $target] = $parts;
        }
        $number = $month === null ? (int) $m : self::MONTHS[strtolower($month)] ?? 0;
        $time = match (true) {
            $month === null => self::time((int) $y, $number, (int) $d, (int) $h, (int) $i),
            $year !== null => self::time((int) $year, $number, (int) $day, 0, 0),
            default => self::lastTime($number, (int) $day, (int) $hour, (int) $minute, $now),
        };

        return $time === null
            ? null
            : new RemoteEntry(
                (string) $name,
                $kind,
                $kind === EntryKind::File ? (int) $size : null,
                $time,
                self::mode((string) $rights),
                false,
                isset($target) ? WireName::fromWire($target) : null,
            );
    }

    /**
     * @param  int  $length  the size listed, which for a link is the length of its target (POSIX, lstat)
     * @return array{string, string|null}|null null where the arrow stands there more than once and the length does
     *     not tell
     */
    private static function nameAndTarget(string $text, int $length): ?array
    {
        $parts = explode(' -> ', $text);
        if (count($parts) > 2) {
            $target = substr($text, -$length);

            return $length > 0 && str_ends_with($text, " -> $target")
                ? [substr($text, 0, -$length - 4), $target]
                : null;
        }

        return [$parts[0], $parts[1] ?? null];
    }

    /** @param  array<string|null>  $match */
    private static function dos(array $match): ?RemoteEntry
    {
        [, $month, $day, $year, $hour, $minute, $half, $special, $size, $name] = $match;
        $kind = match ($special) {
            null => EntryKind::File,
            'DIR' => EntryKind::Directory,
            default => EntryKind::Link,
        };
        $h = $half === null ? (int) $hour : (int) $hour % 12 + ($half === 'PM' ? 12 : 0);
        $y = strlen((string) $year) === 4 ? (int) $year : (int) $year + ((int) $year < 70 ? 2000 : 1900);
        $time = self::time($y, (int) $month, (int) $day, $h, (int) $minute);

        return $time === null
            ? null
            : new RemoteEntry(
                (string) $name,
                $kind,
                $kind === EntryKind::File ? (int) $size : null,
                $time,
                null,
                false,
            );
    }

    private static function time(int $year, int $month, int $day, int $hour, int $minute): ?int
    {
        return checkdate($month, $day, $year) && $hour < 24 && $minute < 60
            ? (int) gmmktime($hour, $minute, 0, $month, $day, $year)
            : null;
    }

    /** The latest such day that is not later than tomorrow: clocks and zones differ by less than that. */
    private static function lastTime(int $month, int $day, int $hour, int $minute, int $now): ?int
    {
        for ($year = (int) gmdate('Y', $now) + 1; $year > (int) gmdate('Y', $now) - 9; $year--) {
            $time = self::time($year, $month, $day, $hour, $minute);
            if ($time !== null && $time <= $now + 86400) {
                return $time;
            }
        }

        return null;
    }

    /** @param  string  $rights  "rwxr-xr-t" */
    private static function mode(string $rights): int
    {
        $mode = 0;
        foreach (str_split($rights) as $index => $letter) {
            $mode |= in_array($letter, ['-', 'S', 'T'], true) ? 0 : 0400 >> $index;
            $mode |= in_array($letter, ['s', 'S', 't', 'T'], true) ? 04000 >> intdiv($index, 3) : 0;
        }

        return $mode;
    }
}
