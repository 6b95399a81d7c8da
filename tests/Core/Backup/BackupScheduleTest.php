<?php

declare(strict_types=1);

namespace Tests\Core\Backup;

use Cellarium\Core\Backup\BackupSchedule;
use DateTimeImmutable;
use DateTimeZone;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** When the next backup is due: in the quiet hours of the site, never later than promised, whatever clocks do. */
final class BackupScheduleTest extends TestCase
{
    private const ZONE = 'Europe/Lisbon'; // Whose clocks change on 29 March and 25 October 2026.

    /** @return iterable<string, array{int, string, string, string}> hours, last, now, due */
    public static function moments(): iterable
    {
        yield 'a day after one of the night before' => [
            24,
            '2026-06-10 02:30',
            '2026-06-10 09:00',
            '2026-06-11 02:30',
        ];
        yield 'a day after one of the afternoon: the night between' => [
            24,
            '2026-06-10 15:00',
            '2026-06-10 16:00',
            '2026-06-11 02:30',
        ];
        yield 'a day after one early in the quiet hours: the promise comes first' => [
            24,
            '2026-06-10 01:10',
            '2026-06-10 09:00',
            '2026-06-11 01:10',
        ];
        yield 'a week after one of the afternoon' => [
            168,
            '2026-06-10 15:00',
            '2026-06-10 16:00',
            '2026-06-17 02:30',
        ];
        yield 'a week after one of the night' => [
            168,
            '2026-06-10 03:00',
            '2026-06-10 16:00',
            '2026-06-17 02:30',
        ];
        yield 'a day and a half' => [
            36,
            '2026-06-10 20:00',
            '2026-06-10 21:00',
            '2026-06-12 02:30',
        ];
        yield 'six hours do not wait for the night' => [
            6,
            '2026-06-10 15:00',
            '2026-06-10 16:00',
            '2026-06-10 21:00',
        ];
        yield 'long overdue' => [
            24,
            '2026-06-01 02:30',
            '2026-06-10 12:00',
            '2026-06-02 02:30',
        ];
        yield 'into the day of 23 hours' => [
            24,
            '2026-03-28 02:30',
            '2026-03-28 09:00',
            '2026-03-29 02:30',
        ];
        yield 'out of the day of 25 hours' => [
            24,
            '2026-10-24 02:30',
            '2026-10-24 09:00',
            '2026-10-25 02:30',
        ];
        yield 'six hours over the change are six hours' => [
            6,
            '2026-03-28 23:00',
            '2026-03-28 23:10',
            '2026-03-29 06:00',
        ];
        yield 'one of the future was taken by a wrong clock' => [
            24,
            '2026-07-01 02:30',
            '2026-06-10 12:00',
            '2026-06-10 12:00',
        ];
    }

    #[DataProvider('moments')]
    public function test_it_is_due(int $hours, string $last, string $now, string $due): void
    {
        $zone = new DateTimeZone(self::ZONE);
        $at = static fn (string $text): DateTimeImmutable => new DateTimeImmutable($text, $zone);
        $promise = new BackupSchedule(max(1, $hours), 60, 240, $zone);
        self::assertSame(
            $at($due)->format(DATE_ATOM),
            $promise->due($at($last)->setTimezone(new DateTimeZone('UTC')), $at($now), 0.5)
                ->setTimezone($zone)
                ->format(DATE_ATOM),
        );
        $broken = $promise->brokenAt($at($last));
        self::assertNotNull($broken);
        self::assertTrue($at($now) < $at($last) || $promise->due($at($last), $at($now), 0.5) <= $broken);
    }

    public function test_without_one_it_is_due_at_once_and_quiet_hours_may_lie_over_midnight(): void
    {
        $zone = new DateTimeZone(self::ZONE);
        $promise = new BackupSchedule(24, 22 * 60, 2 * 60, $zone);
        $now = new DateTimeImmutable('2026-06-10 12:00', $zone);
        self::assertSame($now, $promise->due(null, $now));
        self::assertNull($promise->brokenAt(null));
        $last = new DateTimeImmutable('2026-06-10 11:00', $zone);
        self::assertSame('2026-06-11 00:00', $promise->due($last, $now, 0.5)->format('Y-m-d H:i'));
        self::assertSame('2026-06-10 22:00', $promise->due($last, $now)->format('Y-m-d H:i'));
    }

    public function test_every_moment_of_a_year_has_one_that_is_due_in_time(): void
    {
        $zone = new DateTimeZone(self::ZONE);
        $promise = new BackupSchedule(24, 60, 240, $zone);
        $last = new DateTimeImmutable('2026-01-01 12:00', $zone);
        $taken = 0;
        while ($last < new DateTimeImmutable('2027-01-01', $zone)) {
            $next = $promise->due($last, $last->modify('+1 minute'), ($taken % 10) / 10);
            self::assertGreaterThan($last, $next);
            self::assertLessThanOrEqual($promise->brokenAt($last), $next);
            $last = $next->modify('+3 minutes');
            $taken++;
        }
        self::assertLessThan(460, $taken, 'and not much more often than promised');
    }
}
