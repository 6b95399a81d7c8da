<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use SebastianBergmann\Diff\Differ;
use SebastianBergmann\Diff\Output\UnifiedDiffOutputBuilder;

/**
 * Texts beside each other, line by line: the first is what the others were made from, and each line of theirs stands
 * beside the line it was made from.
 */
final readonly class SideBySide
{
    /** Lines around a difference that are shown with it. */
    private const AROUND = 3;

    /** With more lines, finding out which was made from which takes too long. */
    private const MOST_LINES = 4000;

    /**
     * @param  list<list<SideLine>>  $rows  a line of each text; of those that are the same in all, the ones around a
     *     difference
     * @param  bool  $differOnlyInLineEnds  whether the texts have the same lines
     */
    private function __construct(public array $rows, public bool $differOnlyInLineEnds)
    {
    }

    /** Null where one is too long for that. */
    public static function fromTexts(string $first, string ...$others): ?self
    {
        $base = self::lines($first);
        $columns = [];
        foreach ($others as $other) {
            $lines = self::lines($other);
            if (count($base) > self::MOST_LINES || count($lines) > self::MOST_LINES) {
                return null;
            }
            $columns[] = self::beside($base, $lines);
        }
        $rows = [];
        for ($at = -1; $at < count($base); $at++) {
            if ($at >= 0) {
                $cells = array_map(static fn (array $column): SideLine => $column['at'][$at], $columns);
                $rows[] = [new SideLine($base[$at], SideMark::Same), ...$cells];
            }
            $extra = array_map(static fn (array $column): array => $column['after'][$at] ?? [], $columns);
            for ($line = 0; $line < max(0, ...array_map(count(...), $extra)); $line++) {
                $rows[] = [
                    new SideLine('', SideMark::Nothing),
                    ...array_map(static fn (array $lines): SideLine => isset($lines[$line])
                        ? new SideLine($lines[$line], SideMark::Added)
                        : new SideLine('', SideMark::Nothing), $extra),
                ];
            }
        }
        $shown = self::folded($rows);

        return new self($shown, $shown === []);
    }

    /** @return list<string> */
    private static function lines(string $text): array
    {
        return explode("\n", str_replace("\r\n", "\n", $text));
    }

    /**
     * @param  list<string>  $base
     * @param  list<string>  $lines
     * @return array{at: list<SideLine>, after: array<int, list<string>>} beside each line of the base, and what follows
     *     it; what stands in front of all follows line -1
     */
    private static function beside(array $base, array $lines): array
    {
        $at = [];
        $after = [];
        $open = []; // Lines of the base that are gone, and nothing was laid beside yet.
        foreach ((new Differ(new UnifiedDiffOutputBuilder))->diffToArray($base, $lines) as $step) {
            [$text, $kind] = is_array($step) ? $step : ['', Differ::OLD];
            $text = is_string($text) ? $text : '';
            if ($kind === Differ::REMOVED) {
                $open[] = count($at);
                $at[] = new SideLine('', SideMark::Removed);
            } elseif ($kind === Differ::ADDED) {
                $beside = array_shift($open);
                $beside === null
                    ? $after[count($at) - 1][] = $text
                    : $at[$beside] = new SideLine($text, SideMark::Changed);
            } else {
                $open = [];
                $at[] = new SideLine($text, SideMark::Same);
            }
        }

        return ['at' => array_values($at), 'after' => $after];
    }

    /**
     * @param  list<list<SideLine>>  $rows
     * @return list<list<SideLine>> an empty row stands for all those that are left out in one place
     */
    private static function folded(array $rows): array
    {
        $near = [];
        foreach ($rows as $number => $row) {
            foreach ($row as $line) {
                if ($line->mark !== SideMark::Same) {
                    for ($one = $number - self::AROUND; $one <= $number + self::AROUND; $one++) {
                        $near[$one] = true;
                    }
                    break;
                }
            }
        }
        $shown = [];
        foreach ($near === [] ? [] : $rows as $number => $row) {
            if (isset($near[$number])) {
                $shown[] = $row;
            } elseif ($shown === [] || $shown[count($shown) - 1] !== []) {
                $shown[] = [];
            }
        }

        return $shown;
    }
}
