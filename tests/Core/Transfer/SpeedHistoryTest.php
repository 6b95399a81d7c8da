<?php

declare(strict_types=1);

namespace Tests\Core\Transfer;

use Cellarium\Core\Transfer\SpeedHistory;
use PHPUnit\Framework\TestCase;

final class SpeedHistoryTest extends TestCase
{
    public function test_each_point_is_the_speed_of_its_second(): void
    {
        $history = new SpeedHistory(100.0);
        $history->at(100.5, 300);
        $history->at(101.0, 1000);
        $history->at(102.0, 1500);
        self::assertSame([1000, 500], $history->speeds());
    }

    public function test_a_silence_is_shared_by_the_seconds_it_took(): void
    {
        $history = new SpeedHistory(0.0);
        $history->at(4.0, 400);
        self::assertSame([100, 100, 100, 100], $history->speeds());
    }

    public function test_a_long_run_has_no_more_points_than_a_short_one(): void
    {
        $history = new SpeedHistory(0.0);
        for ($second = 1; $second <= 3600; $second++) {
            $history->at((float) $second, $second * 1000);
        }
        self::assertLessThanOrEqual(120, count($history->speeds()));
        self::assertSame([1000], array_values(array_unique($history->speeds())));
        self::assertSame(32.0, $history->each());
    }
}
