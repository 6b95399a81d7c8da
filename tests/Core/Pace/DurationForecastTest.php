<?php

declare(strict_types=1);

namespace Tests\Core\Pace;

use Cellarium\Core\Pace\Expectation;
use Cellarium\Core\Pace\Pace;
use Cellarium\Core\Plan\Room;
use Cellarium\Core\Plan\RoomStep;
use PHPUnit\Framework\TestCase;

/** What a plan says before anything is done: how full the account gets, and how long it takes. */
final class DurationForecastTest extends TestCase
{
    private const COUNTS = [
        'added' => ['files' => 2, 'bytes' => 300, 'was' => 0],
        'replaced' => ['files' => 1, 'bytes' => 200, 'was' => 150],
        'set_aside' => ['files' => 1, 'bytes' => 100, 'was' => 100],
    ];

    public function test_room_is_told_for_every_step_and_the_first_that_does_not_fit(): void
    {
        $room = Room::fileByFile(self::COUNTS, 1000, 1400);
        self::assertSame(
            [['now', 1000], ['backup', 1000], ['sent beside', 1500], ['renamed', 1350], ['afterwards', 1250]],
            array_map(static fn (RoomStep $step): array => [$step->name, $step->bytes], $room->steps),
        );
        self::assertSame(['sent beside', 100], [$room->firstShort()?->name, $room->firstShort()?->short]);
        self::assertSame(1500, $room->most());
        self::assertNull(Room::fileByFile(self::COUNTS, 1000, 1500)->firstShort());
    }

    public function test_where_the_host_does_not_say_how_much_there_is_nothing_is_short(): void
    {
        self::assertNull(Room::fileByFile(self::COUNTS, 1000, null)->firstShort());
    }

    public function test_time_is_foretold_by_files_bytes_and_connections(): void
    {
        $pace = Pace::measured(100, 0, 10.0, 2);
        $of = static fn (int $files, int $bytes, int $connections): float => round(
            (float) $pace?->of($files, $bytes, $connections),
            3,
        );
        self::assertSame(10.0, $of(100, 0, 2));
        self::assertSame(5.0, $of(100, 0, 4));
        self::assertSame(40.0, $of(200, 200 * Pace::BYTES_A_FILE, 2));
        self::assertSame(0.2, $of(1, 0, 8), 'one file goes over one connection');
        self::assertSame(0.0, $of(0, 0, 8));
    }

    public function test_an_expectation_has_its_spread_and_says_what_it_rests_on(): void
    {
        $paces = array_values(array_filter(array_map(
            static fn (float $seconds): ?Pace => Pace::measured(10, 0, $seconds, 1),
            [4.0, 1.0, 2.0],
        )));
        $expected = Expectation::fromPaces($paces, 20, 0, 1);
        self::assertNotNull($expected);
        self::assertSame(
            [4.0, 2.0, 8.0, 3],
            [round($expected->seconds, 6), $expected->least, $expected->most, $expected->from],
        );
        self::assertNull(Expectation::fromPaces([], 20, 0, 1));
    }
}
