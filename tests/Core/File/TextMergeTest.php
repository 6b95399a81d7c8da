<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\File\TextMerge;
use PHPUnit\Framework\TestCase;

final class TextMergeTest extends TestCase
{
    private const BASE = "one\ntwo\nthree\nfour\nfive";

    private static function merge(string $theirs, string $ours): TextMerge
    {
        return TextMerge::fromTexts(self::BASE, $theirs, $ours) ?? self::fail('too long');
    }

    public function test_changes_in_other_places_are_put_together(): void
    {
        $merge = self::merge("ONE\ntwo\nthree\nfour\nfive\nsix", "one\ntwo\nnew\nthree\nfive");

        self::assertSame("ONE\ntwo\nnew\nthree\nfive\nsix", $merge->text);
        self::assertSame([], $merge->clashes);
    }

    public function test_where_both_changed_one_place_ours_stands_and_it_is_told(): void
    {
        $merge = self::merge("one\nTWO\nthree\nfour\nfive", "one\nzwei\nthree\nfour\nfive");

        self::assertSame("one\nzwei\nthree\nfour\nfive", $merge->text);
        self::assertSame([[2, 'TWO', 'zwei']], $merge->clashes);
    }

    public function test_the_same_change_by_both_is_made_once(): void
    {
        $same = "one\ntwo\nfour\nfive\nmore";

        self::assertSame($same, self::merge($same, $same)->text);
        self::assertSame([], self::merge($same, $same)->clashes);
    }

    public function test_one_side_alone_is_that_side_whatever_it_did(): void
    {
        mt_srand(7);
        for ($round = 0; $round < 400; $round++) {
            $other = self::anyOf(explode("\n", self::BASE));
            self::assertSame($other, self::merge($other, self::BASE)->text);
            self::assertSame($other, self::merge(self::BASE, $other)->text);
        }
    }

    public function test_no_line_that_both_left_alone_is_lost(): void
    {
        mt_srand(11);
        for ($round = 0; $round < 400; $round++) {
            $theirs = self::anyOf(explode("\n", self::BASE));
            $ours = self::anyOf(explode("\n", self::BASE));
            $merged = explode("\n", self::merge($theirs, $ours)->text);
            foreach (explode("\n", self::BASE) as $line) {
                if (in_array($line, explode("\n", $theirs), true) && in_array($line, explode("\n", $ours), true)) {
                    self::assertContains($line, $merged, "theirs:\n$theirs\n\nours:\n$ours");
                }
            }
        }
    }

    /** @param  list<string>  $lines */
    private static function anyOf(array $lines): string
    {
        $text = [];
        foreach ($lines as $line) {
            $chance = mt_rand(0, 9);
            $chance === 0 && $text[] = 'new '.mt_rand(0, 3);
            $chance === 1 || $text[] = $chance === 2 ? "$line changed" : $line;
        }

        return implode("\n", $text);
    }
}
