<?php

declare(strict_types=1);

namespace Cellarium\Core\Timeline;

use DateTimeImmutable;
use DateTimeZone;

/**
 * Events between two moments, as places on a line: moments that would lie on each other are bundled, what lasts and
 * overlaps lies in rows.
 */
final readonly class Timeline
{
    /** Steps between two marks of the axis, from the finest on. */
    private const STEPS = [
        '1 hour',
        '3 hours',
        '12 hours',
        '1 day',
        '2 days',
        '7 days',
        '1 month',
        '3 months',
        '1 year',
        '5 years',
    ];

    private const MOST_TICKS = 9;

    /** What lasted less, in units of the drawing, cannot be told from its neighbour. */
    private const SHORT = 4.0;

    /** @var list<TimelineEvent> within the window, in their order */
    public array $events;

    /**
     * @param  list<TimelineEvent>  $events  in any order
     * @param  int  $from  seconds since 1970
     * @param  int  $until  seconds since 1970, later than from
     * @param  float  $width  of the drawing
     * @param  float  $apart  how far apart two marks are at the least
     */
    public function __construct(
        array $events,
        public int $from,
        public int $until,
        public float $width = 1000.0,
        private float $apart = 16.0,
    ) {
        $within = array_filter(
            $events,
            static fn (TimelineEvent $event): bool => $event->at <= $until && ($event->until ?? $event->at) >= $from,
        );
        usort($within, static fn (TimelineEvent $one, TimelineEvent $other): int => $one->at <=> $other->at);
        $this->events = $within;
    }

    /** Where a moment lies, 0 to the width; what lies outside is drawn at the edge. */
    public function x(int $at): float
    {
        $share = ($at - $this->from) / max(1, $this->until - $this->from);

        return $this->width * min(1.0, max(0.0, $share));
    }

    /** @return list<TimelineMark> */
    public function marks(Lane $lane): array
    {
        $marks = [];
        $open = [];
        $first = 0.0;
        foreach ($this->events as $event) {
            if ($event->lane !== $lane) {
                continue;
            }
            $x = $this->x($event->at);
            if ($open !== [] && $x - $first >= $this->apart) {
                $marks[] = $this->mark($open);
                $open = [];
            }
            $first = $open === [] ? $x : $first;
            $open[] = $event;
        }

        return $open === [] ? $marks : [...$marks, $this->mark($open)];
    }

    /** @param  non-empty-list<TimelineEvent>  $events */
    private function mark(array $events): TimelineMark
    {
        return new TimelineMark(
            array_sum(array_map(fn (TimelineEvent $event): float => $this->x($event->at), $events)) / count($events),
            $events,
        );
    }

    /** @return list<TimelineBar> those too short to be told apart, right behind each other, as one */
    public function bars(Lane $lane): array
    {
        $bars = [];
        $ends = [];
        foreach ($this->events as $event) {
            if ($event->lane !== $lane || $event->until === null) {
                continue;
            }
            $bar = new TimelineBar(
                $this->x($event->at),
                max(1.0, $this->x($event->until) - $this->x($event->at)),
                0,
                $event->at >= $this->from,
                $event,
            );
            $last = array_key_last($bars);
            $joined = $last === null ? null : self::joined($bars[$last], $bar);
            if ($joined !== null) {
                array_pop($bars);
                $bars[] = $joined;
                $ends[$joined->row] = $joined->x + $joined->width;

                continue;
            }
            $row = 0;
            while (($ends[$row] ?? -1.0) > $bar->x) {
                $row++;
            }
            $ends[$row] = $bar->x + $bar->width;
            $bars[] = $bar->inRow($row);
        }

        return $bars;
    }

    /** Both as one, where both are too short and lie at each other; null where they are told apart. */
    private static function joined(TimelineBar $one, TimelineBar $next): ?TimelineBar
    {
        $areShort = $one->width < self::SHORT * $one->count && $next->width < self::SHORT;
        $areNear = $next->x - ($one->x + $one->width) < self::SHORT;

        return $areShort && $areNear ? $one->with($next) : null;
    }

    /**
     * Marks of the axis on whole hours, days, months or years.
     *
     * @return list<array{x: float, label: string}>
     */
    public function ticks(DateTimeZone $zone): array
    {
        $begins = (new DateTimeImmutable("@$this->from"))->setTimezone($zone);
        foreach (self::STEPS as $step) {
            $ticks = [];
            $at = self::whole($begins, $step);
            while ($at->getTimestamp() <= $this->until && count($ticks) <= self::MOST_TICKS) {
                $at->getTimestamp() < $this->from || $ticks[] = [
                    'x' => $this->x($at->getTimestamp()),
                    'label' => $at->format(self::format($step)),
                ];
                $at = $at->modify("+$step");
            }
            if (count($ticks) <= self::MOST_TICKS) {
                return $ticks;
            }
        }

        return [];
    }

    /** The last whole hour, day, month or year before a moment. */
    private static function whole(DateTimeImmutable $at, string $step): DateTimeImmutable
    {
        return match (true) {
            str_contains($step, 'hour') => $at->setTime($step === '1 hour' ? (int) $at->format('G') : 0, 0),
            str_contains($step, 'day') => $at->setTime(0, 0),
            str_contains($step, 'month') => $at->modify('first day of this month')->setTime(0, 0),
            default => $at->modify('first day of January')->setTime(0, 0),
        };
    }

    private static function format(string $step): string
    {
        return match (true) {
            str_contains($step, 'hour') => 'H:i',
            str_contains($step, 'day') => 'j M',
            str_contains($step, 'month') => 'M Y',
            default => 'Y',
        };
    }
}
