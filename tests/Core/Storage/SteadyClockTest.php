<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\SteadyClock;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SteadyClockTest extends TestCase
{
    private const DAY = 86_400;

    /** @return iterable<string, array{int}> seconds */
    public static function leaps(): iterable
    {
        yield 'ten years ahead' => [3650 * self::DAY];
        yield 'two days ahead, or off for so long' => [2 * self::DAY];
        yield 'an hour back' => [-3600];
        yield 'a year back' => [-365 * self::DAY];
    }

    #[DataProvider('leaps')]
    public function test_after_a_leap_a_day_has_to_go_by_and_another_one_begins_it_anew(int $by): void
    {
        $clock = SteadyClock::begin(1_800_000_000)->at(1_800_000_060)->at(1_800_000_060 + $by);
        self::assertSame(1_800_000_060 + $by + self::DAY, $clock->believedFrom());
        $clock = self::minutes($clock, self::DAY - 60);
        self::assertNotNull($clock->believedFrom());
        self::assertNull(self::minutes($clock, 60)->believedFrom());
        if ($by !== -3600) {
            self::assertNotNull($clock->at($clock->seen - $by)->believedFrom(), 'put right, it has to go by anew');
        }
    }

    public function test_a_night_off_small_corrections_and_time_itself_are_no_leap(): void
    {
        $clock = SteadyClock::begin(1_800_000_000);
        foreach ([60, 14 * 3600, 60, -2, 60, 36 * 3600, -299] as $by) {
            $clock = $clock->at($clock->seen + $by);
            self::assertNull($clock->believedFrom());
        }
    }

    private static function minutes(SteadyClock $clock, int $seconds): SteadyClock
    {
        for ($gone = 0; $gone < $seconds; $gone += 60) {
            $clock = $clock->at($clock->seen + 60);
        }

        return SteadyClock::fromList($clock->toList());
    }
}
