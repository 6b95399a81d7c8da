<?php

declare(strict_types=1);

namespace Tests\Core\Backup;

use Cellarium\Core\Backup\HeldBackup;
use Cellarium\Core\Backup\KeptBecause;
use Cellarium\Core\Backup\Retention;
use Cellarium\Core\Backup\RetentionDecision;
use DateTimeImmutable;
use DateTimeZone;
use PHPUnit\Framework\TestCase;

/** What stays, what goes, and why. */
final class RetentionTest extends TestCase
{
    /** @param  string  $numbers  hourly, daily, weekly, monthly, yearly */
    private static function retention(string $numbers): Retention
    {
        $kept = array_map(static fn (string $number): int => max(0, (int) $number), explode(' ', $numbers));

        return new Retention(...[...$kept, new DateTimeZone('Europe/Lisbon')]);
    }

    /**
     * @param  list<string>  $times  UTC
     * @return list<HeldBackup> numbered from 1
     */
    private static function taken(array $times): array
    {
        $backups = [];
        foreach ($times as $index => $time) {
            $backups[] = new HeldBackup($index + 1, new DateTimeImmutable($time, new DateTimeZone('UTC')));
        }

        return $backups;
    }

    /**
     * @param  list<RetentionDecision>  $decisions
     * @return list<int> numbers of those that stay, newest first
     */
    private static function kept(array $decisions): array
    {
        return array_values(array_map(
            static fn (RetentionDecision $decision): int => $decision->backup->id,
            array_filter($decisions, static fn (RetentionDecision $decision): bool => $decision->isKept()),
        ));
    }

    public function test_of_each_period_the_newest_stays(): void
    {
        $backups = self::taken([
            '2026-06-08 01:00',
            '2026-06-09 01:00',
            '2026-06-09 20:00',
            '2026-06-10 01:00',
            '2026-06-10 08:00',
            '2026-06-10 08:30',
        ]);
        self::assertSame([6, 3], self::kept(self::retention('0 2 0 0 0')->decide($backups)));
        self::assertSame([6, 4, 3], self::kept(self::retention('3 0 0 0 0')->decide($backups)));
        shuffle($backups);
        self::assertSame([6, 3, 1], self::kept(self::retention('0 3 1 1 1')->decide($backups)));
    }

    public function test_what_was_taken_before_a_small_change_takes_no_place_of_another(): void
    {
        $at = static fn (string $time): DateTimeImmutable => new DateTimeImmutable($time, new DateTimeZone('UTC'));
        $backups = [
            new HeldBackup(1, $at('2026-06-08 10:00')),
            new HeldBackup(2, $at('2026-06-08 11:00'), isOfSmallChange: true),
            new HeldBackup(3, $at('2026-06-09 10:00'), isOfSmallChange: true),
            new HeldBackup(4, $at('2026-06-10 10:00'), isOfSmallChange: true),
            new HeldBackup(5, $at('2026-06-11 10:00')),
        ];
        self::assertSame([5, 1], self::kept(self::retention('0 2 0 0 0')->decide($backups)));
        self::assertSame([5, 4, 1], self::kept(self::retention('0 3 0 0 0')->decide($backups)), 'what is left over');
    }

    public function test_a_time_without_backups_costs_none_of_the_earlier_ones(): void
    {
        $backups = self::taken(['2025-11-03 01:00', '2025-11-04 01:00', '2026-06-10 01:00']);
        self::assertSame([3, 2, 1], self::kept(self::retention('0 7 0 0 0')->decide($backups)));
        self::assertSame([3, 2], self::kept(self::retention('0 0 4 6 2')->decide($backups)), 'one a week, month, year');
    }

    public function test_days_are_those_of_the_sites_own_calendar(): void
    {
        // Half past eleven at night there is the same day as an hour before; in UTC it is the same in winter only.
        $backups = self::taken(['2026-06-09 22:30', '2026-06-09 23:30']);
        self::assertSame([2, 1], self::kept(self::retention('0 2 0 0 0')->decide($backups)));
        $winter = self::taken(['2026-01-09 22:30', '2026-01-09 23:30']);
        self::assertSame([2], self::kept(self::retention('0 2 0 0 0')->decide($winter)));
        $twice = self::taken(['2026-10-25 00:30', '2026-10-25 01:30']);
        self::assertSame([2, 1], self::kept(self::retention('5 0 0 0 0')->decide($twice)), 'the hour that comes twice');
    }

    public function test_the_only_one_the_newest_pinned_ones_and_ways_back_stay_whatever_the_numbers_say(): void
    {
        $none = self::retention('0 0 0 0 0');
        [$only] = $none->decide(self::taken(['2020-01-01']));
        self::assertSame([KeptBecause::OnlyOne], $only->because);
        $at = new DateTimeImmutable('2026-01-01');
        $decisions = $none->decide([
            new HeldBackup(1, $at),
            new HeldBackup(2, $at->modify('+1 day'), isPinned: true),
            new HeldBackup(3, $at->modify('+2 days'), isWayBack: true),
            new HeldBackup(4, $at->modify('+3 days')),
        ]);
        self::assertSame([4, 3, 2], self::kept($decisions));
        self::assertSame([KeptBecause::WayBack], $decisions[1]->because);
    }

    public function test_years_of_backups_come_down_to_the_numbers_and_what_stays_once_stays_the_next_day(): void
    {
        $retention = self::retention('0 7 4 12 3');
        $held = [];
        $day = new DateTimeImmutable('2020-01-01 02:00', new DateTimeZone('UTC'));
        for ($number = 1; $number <= 2200; $number++) {
            $held[] = new HeldBackup($number, $day->modify("+$number days"));
            $held = array_values(array_map(
                static fn (RetentionDecision $decision): HeldBackup => $decision->backup,
                array_filter(
                    $retention->decide($held),
                    static fn (RetentionDecision $decision): bool => $decision->isKept(),
                ),
            ));
        }
        self::assertLessThanOrEqual(7 + 4 + 12 + 3, count($held));
        $oldest = min(array_map(static fn (HeldBackup $one): string => $one->takenAt->format('Y-m'), $held));
        self::assertSame('2024-12', $oldest, 'of the last three years, the newest of each');
        $months = array_unique(array_map(static fn (HeldBackup $one): string => $one->takenAt->format('Y-m'), $held));
        self::assertGreaterThanOrEqual(12, count($months));
    }
}
