<?php

declare(strict_types=1);

namespace Tests\Core\Plan;

use Cellarium\Core\Plan\LeftByUs;
use Cellarium\Core\Plan\PastRun;
use PHPUnit\Framework\TestCase;

/** Histories that the 625 sequences, all of one place and in order, do not come to. */
final class LeftByUsTest extends TestCase
{
    public function test_each_place_has_what_was_brought_there(): void
    {
        $runs = [self::deploy(1, null, 'a'), self::deploy(2, 'blog', 'b')];
        self::assertSame(['a'], LeftByUs::paths($runs, null));
        self::assertSame(['b'], LeftByUs::paths($runs, 'blog'));
    }

    public function test_undoing_what_went_elsewhere_or_was_overtaken_takes_nothing_back(): void
    {
        $elsewhere = [self::deploy(1, null, 'a'), self::deploy(2, 'blog', 'b'), PastRun::undo(3, 3, 2)];
        self::assertSame(['a'], LeftByUs::paths($elsewhere, null));
        $overtaken = [
            self::deploy(1, null, 'a'),
            self::deploy(2, null, 'b'),
            self::deploy(3, null, 'c'),
            PastRun::undo(4, 4, 2),
        ];
        self::assertSame(['c'], LeftByUs::paths($overtaken, null));
    }

    public function test_of_a_history_that_turns_in_a_circle_nothing_is_known(): void
    {
        $restored = PastRun::restore(1, 1, 2, null);
        self::assertSame([], LeftByUs::paths([$restored], null));
    }

    private static function deploy(int $number, ?string $place, string $path): PastRun
    {
        return PastRun::deploy($number, $number, $place, static fn (): array => [$path]);
    }
}
