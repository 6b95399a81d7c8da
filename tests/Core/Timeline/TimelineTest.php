<?php

declare(strict_types=1);

namespace Tests\Core\Timeline;

use Cellarium\Core\Timeline\Lane;
use Cellarium\Core\Timeline\Timeline;
use Cellarium\Core\Timeline\TimelineBar;
use Cellarium\Core\Timeline\TimelineEvent;
use Cellarium\Core\Timeline\TimelineMark;
use DateTimeZone;
use PHPUnit\Framework\TestCase;

/** Where things lie on the line, and that it stays readable however many there are. */
final class TimelineTest extends TestCase
{
    private const DAY = 86_400;

    private static function backup(int $at, string $kind = 'taken', int $weight = 0): TimelineEvent
    {
        return new TimelineEvent(Lane::Backups, $at, null, "backup at $at", $kind, $weight);
    }

    private static function user(int $from, int $until): TimelineEvent
    {
        return new TimelineEvent(Lane::SignIn, $from, $until, "$from to $until");
    }

    public function test_moments_that_would_lie_on_each_other_are_bundled_and_what_matters_most_stands_for_them(): void
    {
        $line = new Timeline(
            [self::backup(500), self::backup(100), self::backup(105, 'rehearsed', 2), self::backup(110)],
            0,
            1000,
        );
        $marks = $line->marks(Lane::Backups);
        self::assertSame([3, 1], array_map(static fn (TimelineMark $mark): int => $mark->count(), $marks));
        self::assertSame([105.0, 500.0], array_map(static fn (TimelineMark $mark): float => $mark->x, $marks));
        self::assertSame('rehearsed', $marks[0]->main()->kind);
        self::assertSame([], $line->marks(Lane::ByHand));
    }

    public function test_two_thousand_events_become_a_few_marks_that_lie_apart_and_none_is_lost(): void
    {
        $events = [];
        for ($number = 0; $number < 2_000; $number++) {
            $events[] = self::backup($number * 3_601);
        }
        $marks = (new Timeline($events, 0, 2_000 * 3_601))->marks(Lane::Backups);
        self::assertLessThan(70, count($marks));
        self::assertSame(2_000, array_sum(array_map(static fn (TimelineMark $mark): int => $mark->count(), $marks)));
        foreach (array_slice($marks, 1) as $index => $mark) {
            self::assertGreaterThan(8.0, $mark->x - $marks[$index]->x);
        }
    }

    public function test_what_overlaps_lies_in_rows_and_what_begins_earlier_begins_at_the_edge(): void
    {
        $users = array_map(
            static fn (array $of): TimelineEvent => self::user(...$of),
            [[-500, 2_000], [100, 300], [200, 400], [300, 900]],
        );
        $line = new Timeline($users, 0, 1_000);
        self::assertSame(
            [[0.0, 1000.0, 0, false], [100.0, 200.0, 1, true], [200.0, 200.0, 2, true], [300.0, 600.0, 1, true]],
            array_map(
                static fn (TimelineBar $bar): array => [$bar->x, $bar->width, $bar->row, $bar->begins],
                $line->bars(Lane::SignIn),
            ),
        );
    }

    public function test_what_is_too_short_to_be_told_apart_is_one_with_a_count(): void
    {
        $events = [self::user(0, 100)];
        for ($number = 0; $number < 50; $number++) {
            $events[] = self::user(200 + $number, 201 + $number);
        }
        $events[] = self::user(600, 900);
        $bars = (new Timeline($events, 0, 1_000))->bars(Lane::SignIn);
        self::assertSame([1, 50, 1], array_map(static fn (TimelineBar $bar): int => $bar->count, $bars));
        self::assertSame([200.0, 50.0], [$bars[1]->x, $bars[1]->width]);
        self::assertSame('249 to 250', $bars[1]->event->label);
    }

    public function test_what_lies_outside_is_not_drawn(): void
    {
        $line = new Timeline([self::backup(-1), self::backup(0), self::backup(1_001), self::user(-9, -1)], 0, 1_000);
        self::assertCount(1, $line->events);
    }

    public function test_the_axis_has_whole_hours_days_months_or_years_of_the_zone(): void
    {
        $zone = new DateTimeZone('Europe/Lisbon');
        $from = (new \DateTimeImmutable('2026-10-24 09:30', $zone))->getTimestamp();
        $labels = static fn (int $days): array => array_column(
            (new Timeline([], $from, $from + $days * self::DAY))->ticks($zone),
            'label',
        );
        self::assertSame(['12:00', '00:00', '12:00'], array_slice($labels(2), 0, 3), 'the clocks change in between');
        self::assertSame(['25 Oct', '26 Oct', '27 Oct'], array_slice($labels(7), 0, 3));
        self::assertSame(['31 Oct', '7 Nov'], array_slice($labels(28), 0, 2));
        self::assertSame(['Nov 2026', 'Dec 2026'], array_slice($labels(200), 0, 2));
        self::assertSame(['2027', '2028'], array_slice($labels(1_500), 0, 2));
        foreach ([1, 2, 7, 28, 91, 365, 1_826, 9_000] as $days) {
            self::assertGreaterThanOrEqual(1, count($labels($days)), "$days days");
            self::assertLessThanOrEqual(9, count($labels($days)), "$days days");
        }
    }
}
