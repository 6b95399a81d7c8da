<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Compare;

use SebastianBergmann\Diff\Differ;
use SebastianBergmann\Diff\Output\DiffOnlyOutputBuilder;

/** Two texts side by side: the lines that differ, each part with some lines around it. */
final class TextDifference
{
    /** Comparing takes as many steps as the lines of one text times those of the other. */
    private const MOST_LINES = 2500;

    private const MOST_BYTES = 500_000;

    private const AROUND = 3;

    /** Lines that a browser shows without trouble. */
    private const LONGEST_LINE = 400;

    /** Whether it is text, and not too much of it. */
    public static function isPossible(string $before, string $after): bool
    {
        foreach ([$before, $after] as $text) {
            if (
                strlen($text) > self::MOST_BYTES
                || str_contains($text, "\0")
                || substr_count($text, "\n") > self::MOST_LINES
            ) {
                return false;
            }
        }

        return true;
    }

    /** @return list<list<DifferenceRow>> parts that lie apart, in the order of the texts */
    public static function between(string $before, string $after): array
    {
        $rows = self::rows($before, $after);
        $near = [];
        foreach ($rows as $number => $row) {
            if ($row->isChanged) {
                $near += array_fill_keys(range(max(0, $number - self::AROUND), $number + self::AROUND), true);
            }
        }
        $parts = [];
        $last = -2;
        foreach ($rows as $number => $row) {
            if (isset($near[$number])) {
                $number === $last + 1 ? $parts[count($parts) - 1][] = $row : $parts[] = [$row];
                $last = $number;
            }
        }

        return array_values($parts);
    }

    /** @return list<DifferenceRow> lines that are gone beside those that came in their place */
    private static function rows(string $before, string $after): array
    {
        $rows = [];
        [$left, $right] = [0, 0];
        [$gone, $come] = [[], []];
        foreach ((new Differ(new DiffOnlyOutputBuilder))->diffToArray($before, $after) as $step) {
            [$line, $kind] = is_array($step) ? $step : [null, null];
            if ($kind === Differ::REMOVED) {
                $gone[] = [++$left, self::line($line)];
            } elseif ($kind === Differ::ADDED) {
                $come[] = [++$right, self::line($line)];
            } elseif ($kind === Differ::OLD) {
                array_push($rows, ...self::paired($gone, $come));
                [$gone, $come] = [[], []];
                $text = self::line($line);
                $rows[] = new DifferenceRow(++$left, $text, ++$right, $text, false);
            }
        }

        return [...$rows, ...self::paired($gone, $come)];
    }

    /**
     * @param  list<array{int, string}>  $gone
     * @param  list<array{int, string}>  $come
     * @return list<DifferenceRow>
     */
    private static function paired(array $gone, array $come): array
    {
        $rows = [];
        for ($at = 0; $at < max(count($gone), count($come)); $at++) {
            $rows[] = new DifferenceRow(
                $gone[$at][0] ?? null,
                $gone[$at][1] ?? '',
                $come[$at][0] ?? null,
                $come[$at][1] ?? '',
                true,
            );
        }

        return $rows;
    }

    private static function line(mixed $line): string
    {
        return mb_strimwidth(rtrim(mb_scrub(is_string($line) ? $line : ''), "\r\n"), 0, self::LONGEST_LINE, '…');
    }
}
