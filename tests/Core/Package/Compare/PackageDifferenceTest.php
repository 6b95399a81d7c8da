<?php

declare(strict_types=1);

namespace Tests\Core\Package\Compare;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Compare\ChangedFile;
use Cellarium\Core\Package\Compare\DifferenceRow;
use Cellarium\Core\Package\Compare\PackageDifference;
use Cellarium\Core\Package\Compare\TextDifference;
use Cellarium\Core\Path\RelativePath;
use PHPUnit\Framework\TestCase;

final class PackageDifferenceTest extends TestCase
{
    /** @param  array<string, string>  $files */
    private static function manifest(array $files): Manifest
    {
        return Manifest::fromEntries(array_map(
            static fn (string $path, string $text): ManifestEntry => new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                strlen($text),
                sha256: hash('sha256', $text),
            ),
            array_keys($files),
            array_values($files),
        ));
    }

    public function test_each_file_is_told_by_what_became_of_it(): void
    {
        $found = PackageDifference::between(
            self::manifest([
                'a.html' => 'a',
                'b.html' => 'b',
                'img/c.png' => 'ccc',
                'e' => '',
                'gone.css' => 'g',
            ]),
            self::manifest([
                'a.html' => 'a',
                'b.html' => 'bbb',
                'pics/c.png' => 'ccc',
                'f' => '',
                'new.css' => 'n',
            ]),
        );

        self::assertSame([
            'changed b.html',
            'gone e',
            'added f',
            'gone gone.css',
            'added new.css',
            'renamed pics/c.png',
        ], array_map(static fn (ChangedFile $file): string => "{$file->change->value} {$file->path()}", $found->files));
        self::assertSame([1, 2], [$found->same, $found->bytes()]);
    }

    /** @return list<list<string>> */
    private static function rows(string $before, string $after): array
    {
        return array_map(static fn (array $part): array => array_map(
            static fn (DifferenceRow $row): string => "$row->beforeLine|$row->before|$row->afterLine|$row->after"
                .($row->isChanged ? '|x' : ''),
            $part,
        ), TextDifference::between($before, $after));
    }

    public function test_texts_stand_side_by_side_with_some_lines_around_what_differs(): void
    {
        $lines = array_map(strval(...), range(1, 30));
        $before = implode("\n", $lines);
        $lines[9] = 'ten';
        unset($lines[20], $lines[21]);
        $lines[29] = "30\nmore";

        self::assertSame([
            ['7|7|7|7', '8|8|8|8', '9|9|9|9', '10|10|10|ten|x', '11|11|11|11', '12|12|12|12', '13|13|13|13'],
            ['18|18|18|18', '19|19|19|19', '20|20|20|20', '21|21|||x', '22|22|||x', '23|23|21|23', '24|24|22|24',
                '25|25|23|25'],
            ['27|27|25|27', '28|28|26|28', '29|29|27|29', '30|30|28|30|x', '||29|more|x'],
        ], self::rows($before, implode("\n", $lines)));
        self::assertSame([], self::rows("a\nb", "a\nb"));
    }

    public function test_what_is_no_text_or_too_much_is_not_compared(): void
    {
        self::assertTrue(TextDifference::isPossible("a\n", "b\xff"));
        self::assertFalse(TextDifference::isPossible("a\0", 'b'));
        self::assertFalse(TextDifference::isPossible('a', str_repeat("b\n", 3000)));
        self::assertFalse(TextDifference::isPossible('a', str_repeat('b', 600_000)));
        self::assertSame([['1|a?|1|<b>|x']], self::rows("a\xff", '<b>'));
    }
}
