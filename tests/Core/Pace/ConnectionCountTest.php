<?php

declare(strict_types=1);

namespace Tests\Core\Pace;

use Cellarium\Core\Pace\ConnectionCount;
use Cellarium\Core\Pace\Pace;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ConnectionCountTest extends TestCase
{
    /** @return iterable<string, array{array<int, list<float>>, int, int}> seconds for 100 files, by connections */
    public static function measured(): iterable
    {
        yield 'nothing yet' => [[], 8, 4];
        yield 'nothing yet, and fewer allowed' => [[], 2, 2];
        yield 'the first measure: twice as many are tried' => [[4 => [10.0]], 8, 8];
        yield 'twice as many helped: twice as many again' => [[4 => [10.0], 8 => [5.5]], 16, 16];
        yield 'twice as many helped, and no more are allowed' => [[4 => [10.0], 8 => [5.5]], 8, 8];
        yield 'twice as many did not help' => [[4 => [10.0], 8 => [9.5]], 16, 4];
        yield 'twice as many were slower' => [[4 => [10.0], 8 => [14.0]], 16, 4];
        yield 'one slow run does not count' => [[4 => [10.0, 10.0], 8 => [5.0, 30.0, 5.2]], 8, 8];
    }

    /** @param  array<int, list<float>>  $seconds */
    #[DataProvider('measured')]
    public function test_as_many_are_opened_as_were_measured_to_help(array $seconds, int $most, int $expected): void
    {
        $runs = [];
        foreach ($seconds as $connections => $list) {
            foreach ($list as $one) {
                $pace = Pace::measured(100, 0, $one, $connections);
                $pace === null || $runs[] = [$connections, $pace];
            }
        }
        self::assertSame($expected, ConnectionCount::next($runs, 4, $most));
    }
}
