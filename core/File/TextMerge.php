<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use SebastianBergmann\Diff\Differ;
use SebastianBergmann\Diff\Output\UnifiedDiffOutputBuilder;

/** Two people's changes to one text, put together line by line where they changed other places. */
final readonly class TextMerge
{
    /** With more lines, finding out what each changed takes too long. */
    private const MOST_LINES = 4000;

    /**
     * @param  string  $text  with both changes; where both changed one place, ours
     * @param  list<array{int, string, string}>  $clashes  line in the text, theirs, ours
     */
    private function __construct(public string $text, public array $clashes)
    {
    }

    /** Null where one of the texts is too long for that. */
    public static function fromTexts(string $base, string $theirs, string $ours): ?self
    {
        $lines = explode("\n", $base);
        $sides = [explode("\n", $theirs), explode("\n", $ours)];
        if (max(count($lines), count($sides[0]), count($sides[1])) > self::MOST_LINES) {
            return null;
        }
        [$their, $our] = array_map(static fn (array $side): array => self::changes($lines, $side), $sides);
        $text = [];
        $clashes = [];
        for ($at = 0; $at <= count($lines);) {
            $until = self::end($at, $their, $our);
            if ($until === null) {
                $at < count($lines) && $text[] = $lines[$at];
                $at++;

                continue;
            }
            [$theirLines, $ourLines] = array_map(static fn (array $changes): array => self::side(
                $lines,
                $changes,
                $at,
                $until,
            ), [$their, $our]);
            $baseLines = array_slice($lines, $at, $until - $at);
            if ($ourLines !== $baseLines && $theirLines !== $baseLines && $ourLines !== $theirLines) {
                $clashes[] = [count($text) + 1, implode("\n", $theirLines), implode("\n", $ourLines)];
            }
            array_push($text, ...($ourLines === $baseLines ? $theirLines : $ourLines));
            if ($until === $at) {
                // Only something put in front of this line, which follows.
                $at < count($lines) && $text[] = $lines[$at];
                $at++;
            } else {
                $at = $until;
            }
        }

        return new self(implode("\n", $text), $clashes);
    }

    /**
     * @param  list<string>  $base
     * @param  list<string>  $side
     * @return array<int, array{int, list<string>}> by line of the base: how many of its lines are replaced from there,
     *     and by what
     */
    private static function changes(array $base, array $side): array
    {
        $changes = [];
        $at = 0;
        $open = null;
        foreach ((new Differ(new UnifiedDiffOutputBuilder))->diffToArray($base, $side) as $step) {
            [$line, $kind] = is_array($step) ? $step : ['', Differ::OLD];
            if ($kind === Differ::OLD) {
                $at++;
                $open = null;

                continue;
            }
            $open ??= $at;
            $changes[$open] ??= [0, []];
            if ($kind === Differ::REMOVED) {
                $changes[$open][0]++;
                $at++;
            } else {
                $changes[$open][1][] = is_string($line) ? $line : '';
            }
        }

        return $changes;
    }

    /**
     * Where what begins at a line ends, with all that touches it on either side; null where nothing begins there.
     *
     * @param  array<int, array{int, list<string>}>  $their
     * @param  array<int, array{int, list<string>}>  $our
     */
    private static function end(int $at, array $their, array $our): ?int
    {
        if (! isset($their[$at]) && ! isset($our[$at])) {
            return null;
        }
        $until = $at + max($their[$at][0] ?? 0, $our[$at][0] ?? 0);
        for ($line = $at + 1; $line < $until; $line++) {
            $until = max($until, $line + ($their[$line][0] ?? 0), $line + ($our[$line][0] ?? 0));
        }

        return $until;
    }

    /**
     * @param  list<string>  $base
     * @param  array<int, array{int, list<string>}>  $changes
     * @return list<string> what one side has from a line to another
     */
    private static function side(array $base, array $changes, int $at, int $until): array
    {
        $lines = [];
        for ($line = $at; $line <= $until;) {
            $change = $changes[$line] ?? null;
            // What is put in at the end belongs to what comes there.
            if ($change !== null && ($line < $until || $line === $at)) {
                array_push($lines, ...$change[1]);
                $line += $change[0];
                if ($change[0] > 0) {
                    continue;
                }
            }
            $line < $until && $lines[] = $base[$line];
            $line++;
        }

        return $lines;
    }
}
