<?php

declare(strict_types=1);

namespace App\Sites;

use App\Models\Site;
use Carbon\CarbonImmutable;
use Cellarium\Core\Intake\CsvCell;
use Cellarium\Core\Timeline\Lane;
use Cellarium\Core\Timeline\Timeline;
use Cellarium\Core\Timeline\TimelineBar;
use Cellarium\Core\Timeline\TimelineEvent;
use Cellarium\Core\Timeline\TimelineMark;
use DateTimeZone;

/** The drawing of a site over time: shapes in lanes, the axis, and the same facts as a table. */
final readonly class OverTime
{
    /** Days that one can look at, by what they are called. */
    public const SPANS = [
        1 => 'day',
        7 => 'week',
        28 => '4 weeks',
        91 => '3 months',
        365 => 'year',
        1826 => '5 years',
    ];

    /** Of the names of the lanes, which stay where they are when the rest is moved. */
    public const LABELS = 132;

    public const WIDTH = 1050;

    /** Room at both ends for what is drawn around a moment. */
    private const LEFT = 12;

    private const LANE = 34;

    private const BAR = 16;

    private const TOP = 14;

    private const MOST_ROWS = 6;

    /** Room for what A and B are held by, and for the words of the axis. */
    private const BELOW = 52;

    /** Letters that fit into a unit of the drawing. */
    private const LETTERS = 0.15;

    /** @var list<array{label: string, more: string, y: int}> */
    public array $lanes;

    /** @var list<array<string, mixed>> */
    public array $bars;

    /** @var list<array<string, mixed>> */
    public array $marks;

    /** @var list<array{x: float, label: string, anchor: string}> */
    public array $ticks;

    public int $height;

    public Timeline $line;

    public function __construct(public Site $site, public int $days, public CarbonImmutable $until)
    {
        $from = $until->subDays($days);
        $this->line = new Timeline(
            (new SiteEvents($site, $from, $until))->all(),
            $from->getTimestamp(),
            $until->getTimestamp(),
            self::WIDTH - 2 * self::LEFT,
        );
        $y = self::TOP;
        $lanes = [];
        $bars = [];
        $marks = [];
        foreach (Lane::cases() as $lane) {
            $rows = 1;
            $left = 0;
            foreach ($lane->hasBars() ? $this->line->bars($lane) : [] as $bar) {
                $rows = max($rows, min(self::MOST_ROWS, $bar->row + 1));
                $bar->row < self::MOST_ROWS ? $bars[] = self::bar($bar, $y) : $left += $bar->count;
            }
            foreach ($lane->hasBars() ? [] : $this->line->marks($lane) as $mark) {
                $marks[] = self::mark($mark, $y + intdiv(self::LANE, 2));
            }
            $lanes[] = [
                'label' => $lane->label(),
                'more' => $left === 0 ? '' : "and $left more",
                'y' => $y + intdiv(self::LANE, 2),
            ];
            $y += self::LANE + ($rows - 1) * (self::BAR + 3);
        }
        [$this->lanes, $this->bars, $this->marks] = [$lanes, $bars, $marks];
        $this->height = $y + self::BELOW;
        $this->ticks = array_map(
            static fn (array $tick): array => [
                'x' => self::LEFT + $tick['x'],
                'label' => $tick['label'],
                // The words of the last one stay within the drawing.
                'anchor' => $tick['x'] > self::WIDTH - 4 * self::LEFT ? 'end' : 'middle',
            ],
            $this->line->ticks(new DateTimeZone($until->getTimezone()->getName())),
        );
    }

    /** @return array<string, mixed> */
    private static function bar(TimelineBar $bar, int $y): array
    {
        $letters = (int) ($bar->width * self::LETTERS);
        $label = $bar->count === 1 ? $bar->event->label : "$bar->count, the last: {$bar->event->label}";

        return [
            'x' => self::LEFT + $bar->x,
            'y' => $y + 8 + $bar->row * (self::BAR + 3),
            'width' => $bar->width,
            'height' => self::BAR,
            'kind' => $bar->event->kind,
            'notch' => $bar->begins && $bar->event->kind === 'way_back',
            'label' => match (true) {
                $bar->count > 1 => $letters < 2 ? '' : (string) $bar->count,
                $letters < 4 => '',
                mb_strlen($label) > $letters => mb_substr($label, 0, $letters - 1).'…',
                default => $label,
            },
            'words' => self::when($bar->event).': '.$label,
            'page' => $bar->event->page,
        ];
    }

    /** @return array<string, mixed> */
    private static function mark(TimelineMark $mark, int $y): array
    {
        $main = $mark->main();
        $more = $mark->count() - 1;
        $x = self::LEFT + $mark->x;
        $isLast = $x > self::WIDTH - 4 * self::LEFT;

        return [
            'x' => $x,
            // Beside the sign, where there is room.
            'count_x' => $isLast ? $x - 9 : $x + 9,
            'anchor' => $isLast ? 'end' : 'start',
            'y' => $y,
            'lane' => $main->lane->value,
            'kind' => $main->kind,
            'count' => $mark->count(),
            'words' => self::when($main).': '.$main->label.($more === 0 ? '' : ", and $more more"),
            'page' => $main->page,
        ];
    }

    private static function when(TimelineEvent $event): string
    {
        return CarbonImmutable::createFromTimestamp($event->at)->shown('j M Y H:i');
    }

    /** @return list<array{at: string, until: string, lane: string, words: string, page: string|null}> newest first */
    public function rows(): array
    {
        return array_map(static fn (TimelineEvent $event): array => [
            'at' => self::when($event),
            'until' => $event->until === null
                ? ''
                : CarbonImmutable::createFromTimestamp($event->until)->shown('j M Y H:i'),
            'lane' => $event->lane->label(),
            'words' => $event->label,
            'page' => $event->page,
        ], array_reverse($this->line->events));
    }

    /** The same as CSV (RFC 4180), times in RFC 3339. */
    public function csv(): string
    {
        $sink = fopen('php://temp', 'w+b');
        assert($sink !== false);
        CsvCell::line($sink, ['from', 'until', 'lane', 'what']);
        foreach ($this->line->events as $event) {
            CsvCell::line($sink, [
                gmdate(DATE_ATOM, $event->at),
                $event->until === null ? '' : gmdate(DATE_ATOM, $event->until),
                $event->lane->label(),
                $event->label,
            ]);
        }
        rewind($sink);

        return (string) stream_get_contents($sink);
    }

    /**
     * Two moments to begin with: those of the newest two backups, or far apart where there are none.
     *
     * @return array{a: array{at: int, x: float, words: string}, b: array{at: int, x: float, words: string}}
     */
    public function moments(): array
    {
        $backups = [];
        foreach ($this->line->events as $event) {
            $event->lane === Lane::Backups && $event->at <= $this->line->until && $backups[] = $event->at;
        }
        $quarter = intdiv($this->line->until - $this->line->from, 4);
        [$a, $b] = count($backups) < 2
            ? [$this->line->from + $quarter, $this->line->until - $quarter]
            : array_slice($backups, -2);
        $moment = fn (int $at): array => [
            'at' => $at,
            'x' => self::LEFT + round($this->line->x($at), 1),
            'words' => CarbonImmutable::createFromTimestamp($at)->shown('j M Y H:i'),
        ];

        return ['a' => $moment($a), 'b' => $moment($b)];
    }

    /** Where the time begins and ends within the drawing. */
    public function leftEdge(): int
    {
        return self::LEFT;
    }

    /** Earlier by a part of what is shown, later, and never beyond now. */
    public function moved(float $spans): string
    {
        $until = $this->until->addSeconds((int) ($spans * $this->days * 86400));

        return $until->isFuture() ? '' : $until->toIso8601ZuluString();
    }
}
