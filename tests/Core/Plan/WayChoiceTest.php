<?php

declare(strict_types=1);

namespace Tests\Core\Plan;

use Cellarium\Core\Plan\Way;
use Cellarium\Core\Plan\WayChoice;
use Cellarium\Core\Plan\WayCost;
use PHPUnit\Framework\TestCase;

final class WayChoiceTest extends TestCase
{
    private static function proposed(
        WayCost $swap,
        WayCost $unpack,
        int $changing = 40,
        ?Way $tooLarge = null,
    ): WayChoice {
        return WayChoice::propose(
            [new WayCost(Way::FileByFile, 40, 2_000_000), $swap, $unpack],
            $changing,
            static fn (Way $way): bool => $way !== $tooLarge,
        );
    }

    private static function swap(int $files = 60, int $moves = 1, ?string $barred = null): WayCost
    {
        return new WayCost(Way::Swap, $files, 50_000 * $files, $moves, $barred);
    }

    private static function unpack(?string $barred = null): WayCost
    {
        return new WayCost(Way::Unpack, 60, 3_000_000, 1, $barred);
    }

    public function test_where_the_host_unpacks_one_archive_goes_up(): void
    {
        self::assertSame(Way::Unpack, self::proposed(self::swap(), self::unpack())->way);
    }

    public function test_a_tree_of_reasonable_size_is_swapped(): void
    {
        $choice = self::proposed(self::swap(), self::unpack('the host does not'));

        self::assertSame(Way::Swap, $choice->way);
        self::assertSame('this login reaches the directory above, and 40 of 60 files change at once', $choice->why);
    }

    public function test_one_file_that_changes_needs_no_other_tree(): void
    {
        self::assertSame(Way::FileByFile, self::proposed(self::swap(), self::unpack(), 1)->way);
        self::assertSame(Way::FileByFile, self::proposed(self::swap(), self::unpack(), 0)->way);
    }

    public function test_what_is_against_the_others_is_said(): void
    {
        $choice = self::proposed(self::swap(5_000), self::unpack('the host does not'));

        self::assertSame(Way::FileByFile, $choice->way);
        self::assertSame(
            'unpacking at the host: the host does not; swapping: a whole tree would go up, 125 times the bytes that '
                .'change',
            $choice->why,
        );
    }

    public function test_no_way_is_proposed_that_has_no_room_or_would_be_noticed(): void
    {
        $barred = self::unpack('the host does not');

        self::assertSame(Way::FileByFile, self::proposed(self::swap(), $barred, tooLarge: Way::Swap)->way);
        self::assertSame(Way::FileByFile, self::proposed(self::swap(moves: 900), $barred)->way);
    }
}
