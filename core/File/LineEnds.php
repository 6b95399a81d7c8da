<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use SebastianBergmann\Diff\Differ;
use SebastianBergmann\Diff\Output\UnifiedDiffOutputBuilder;

/** The ends of lines: put aside while a text is edited, and given back to each line that is still there. */
final class LineEnds
{
    /** With more lines between the first and the last change, which came from which is not found out. */
    private const MOST_LINES = 2000;

    /** The same with "\n" only. */
    public static function plain(string $text): string
    {
        return str_replace(["\r\n", "\r"], "\n", $text);
    }

    /**
     * @param  string  $original  with its line ends
     * @param  string  $edited  with "\n" only
     * @return string the edited text; lines of the original end as they did there, new ones as most of them do
     */
    public static function restored(string $original, string $edited): string
    {
        [$lines, $ends] = self::split($original);
        $usual = self::usual($ends);
        $kinds = array_unique(array_filter($ends, static fn (string $end): bool => $end !== ''));
        if (count($kinds) <= 1) {
            return $usual === "\n" ? $edited : str_replace("\n", $usual, $edited);
        }
        $new = explode("\n", $edited);
        $from = self::origins($lines, $new);
        $text = '';
        $last = count($new) - 1;
        foreach ($new as $number => $line) {
            $end = $from[$number] === null ? '' : $ends[$from[$number]];
            $text .= $line;
            if ($number !== $last) {
                $text .= $end === '' ? $usual : $end;
            }
        }

        return $text;
    }

    public static function label(string $text): string
    {
        $kinds = array_count_values(array_filter(self::split($text)[1], static fn (string $end): bool => $end !== ''));
        $name = static fn (string $end): string => match ($end) {
            "\r\n" => 'CRLF',
            "\r" => 'CR',
            default => 'LF',
        };

        return match (count($kinds)) {
            0 => 'one line',
            1 => 'lines end with '.$name((string) array_key_first($kinds)),
            default => 'line ends mixed: '.implode(', ', array_map(
                static fn (string $end, int $count): string => "$count ".$name($end),
                array_keys($kinds),
                $kinds,
            )),
        };
    }

    /** @return array{list<string>, list<string>} lines without their ends, and these; of the last "" */
    private static function split(string $text): array
    {
        $parts = preg_split('/(\r\n|\r|\n)/', $text, -1, PREG_SPLIT_DELIM_CAPTURE);
        $lines = [];
        $ends = [];
        foreach ($parts === false ? [$text] : $parts as $index => $part) {
            $index % 2 === 0 ? $lines[] = $part : $ends[] = $part;
        }

        return [$lines, [...$ends, '']];
    }

    /** @param  list<string>  $ends */
    private static function usual(array $ends): string
    {
        $kinds = array_count_values(array_filter($ends, static fn (string $end): bool => $end !== ''));
        arsort($kinds);

        return $kinds === [] ? "\n" : (string) array_key_first($kinds);
    }

    /**
     * @param  list<string>  $old
     * @param  list<string>  $new
     * @return list<int|null> for each new line the old one it is, null where it is new
     */
    private static function origins(array $old, array $new): array
    {
        $most = min(count($old), count($new));
        $head = 0;
        while ($head < $most && $old[$head] === $new[$head]) {
            $head++;
        }
        $tail = 0;
        $ends = [count($old) - 1, count($new) - 1];
        while ($tail < $most - $head && $old[$ends[0] - $tail] === $new[$ends[1] - $tail]) {
            $tail++;
        }
        $from = $head === 0 ? [] : range(0, $head - 1);
        $oldMiddle = array_slice($old, $head, count($old) - $head - $tail);
        $newMiddle = array_slice($new, $head, count($new) - $head - $tail);
        $isLong = count($oldMiddle) > self::MOST_LINES || count($newMiddle) > self::MOST_LINES;
        array_push($from, ...($isLong
            ? array_fill(0, count($newMiddle), null)
            : self::compared($oldMiddle, $newMiddle, $head)));

        return [...$from, ...($tail === 0 ? [] : range(count($old) - $tail, count($old) - 1))];
    }

    /**
     * @param  list<string>  $old
     * @param  list<string>  $new
     * @return list<int|null>
     */
    private static function compared(array $old, array $new, int $at): array
    {
        $from = [];
        foreach ((new Differ(new UnifiedDiffOutputBuilder))->diffToArray($old, $new) as $step) {
            $kind = is_array($step) ? $step[1] : Differ::OLD;
            if ($kind === Differ::ADDED) {
                $from[] = null;
            } elseif ($kind === Differ::REMOVED) {
                $at++;
            } else {
                $from[] = $at++;
            }
        }

        return $from;
    }
}
