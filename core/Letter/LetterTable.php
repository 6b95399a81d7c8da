<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/**
 * Tables of a letter: labels above their columns, or at the beginning of rows with several accounts beside each other.
 */
final class LetterTable
{
    /**
     * @param  list<LetterLine>  $lines
     * @return array{list<list<array{LetterLabel, string, int, LetterLine}>>, int}|null facts by account, and the
     *     last line of the table; null where none begins
     */
    public static function rows(array $lines, int $index): ?array
    {
        return self::labelsAbove($lines, $index) ?? self::accountsAcross($lines, $index);
    }

    /**
     * @param  list<LetterLine>  $lines
     * @return array{list<list<array{LetterLabel, string, int, LetterLine}>>, int}|null
     */
    private static function labelsAbove(array $lines, int $index): ?array
    {
        $cells = $lines[$index]->cells();
        $labels = array_map(static fn (array $cell): ?LetterLabel => LetterLabel::whole($cell[0]), $cells);
        $known = count(array_filter($labels));
        $words = array_filter(
            $cells,
            static fn (array $cell): bool => preg_match('~\d|://|\w\.\w|^/|@~', $cell[0]) !== 1,
        );
        if (
            count($cells) < 2
            || $known < 2
            || ($known < count($cells) - 1 && ($known * 2 < count($cells) || count($words) < count($cells)))
        ) {
            return null;
        }
        $accounts = [];
        $last = $index;
        for ($next = $index + 1; $next < count($lines); $next++) {
            $row = $lines[$next]->cells();
            if (trim($lines[$next]->text) === '' && $accounts === []) {
                continue;
            }
            if (count($row) !== count($cells) || LetterLabel::whole($row[0][0]) !== null) {
                break;
            }
            $facts = [];
            foreach ($row as $column => [$value, $at]) {
                $label = $labels[$column];
                $label === null ?: $facts[] = [$label, $value, $at, $lines[$next]];
            }
            $accounts[] = $facts;
            $last = $next;
        }

        return $accounts === [] ? null : [$accounts, $last];
    }

    /**
     * @param  list<LetterLine>  $lines
     * @return array{list<list<array{LetterLabel, string, int, LetterLine}>>, int}|null
     */
    private static function accountsAcross(array $lines, int $index): ?array
    {
        $accounts = [];
        $rows = 0;
        $last = $index;
        for ($next = $index; $next < count($lines); $next++) {
            $cells = $lines[$next]->cells();
            $label = count($cells) < 3 ? null : LetterLabel::whole($cells[0][0]);
            if ($label === null && $accounts !== [] && count($cells) - 1 === count($accounts)) {
                continue; // A row of which nobody knows what it says.
            }
            if (
                $label === null
                || ($accounts !== [] && count($cells) - 1 !== count($accounts))
                || ($label->fact !== Fact::Protocol
                    && (LetterLabel::whole($cells[1][0]) !== null || LetterLabel::in($cells[2][0]) !== []))
            ) {
                break;
            }
            foreach (array_slice($cells, 1) as $column => [$value, $at]) {
                $accounts[$column][] = [$label, $value, $at, $lines[$next]];
            }
            $rows++;
            $last = $next;
        }

        return $rows < 3 ? null : [array_values($accounts), $last];
    }
}
