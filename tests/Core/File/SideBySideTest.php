<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\File\SideBySide;
use Cellarium\Core\File\SideLine;
use Cellarium\Core\File\SideMark;
use PHPUnit\Framework\TestCase;

final class SideBySideTest extends TestCase
{
    /** @return list<string> each row as "first | second | third", with a sign for what became of a line */
    private static function told(string $first, string ...$others): array
    {
        $sign = static fn (SideLine $line): string => match ($line->mark) {
            SideMark::Same => $line->text,
            SideMark::Changed => "~$line->text",
            SideMark::Added => "+$line->text",
            SideMark::Removed => '-',
            SideMark::Nothing => '',
        };

        return array_map(
            static fn (array $row): string => $row === [] ? '…' : implode(' | ', array_map($sign, $row)),
            SideBySide::fromTexts($first, ...$others)->rows ?? ['too long'],
        );
    }

    public function test_each_line_stands_beside_the_one_it_was_made_from(): void
    {
        self::assertSame(
            [
                ' |  | +top',
                'a | a | a',
                'b | ~B | b',
                'c | c | -',
                'd | d | d',
                ' | +new | ',
                ' | +newer | ',
                'e | e | e',
            ],
            self::told("a\nb\nc\nd\ne", "a\nB\nc\nd\nnew\nnewer\ne", "top\na\nb\nd\ne"),
        );
    }

    public function test_lines_far_from_a_difference_are_left_out(): void
    {
        $text = implode("\n", range(1, 20));
        self::assertSame(
            ['…', '7 | 7', '8 | 8', '9 | 9', '10 | ~ten', '11 | 11', '12 | 12', '13 | 13', '…'],
            self::told($text, str_replace("10\n", "ten\n", $text)),
        );
    }

    public function test_texts_that_differ_in_line_ends_only_say_so(): void
    {
        $sides = SideBySide::fromTexts("a\nb\n", "a\r\nb\r\n");
        self::assertTrue($sides?->differOnlyInLineEnds);
        self::assertFalse(SideBySide::fromTexts("a\n", "b\n")?->differOnlyInLineEnds);
    }

    public function test_what_is_too_long_to_compare_is_not_compared(): void
    {
        self::assertNull(SideBySide::fromTexts('a', str_repeat("a\n", 5000)));
    }
}
