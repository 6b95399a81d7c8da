<?php

declare(strict_types=1);

namespace App\Backups;

use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\KeptBecause;
use Cellarium\Core\Backup\RetentionDecision;
use Cellarium\Core\Words\Count;
use DateTimeImmutable;

/**
 * The drawing of backups that stay and that go, along the time they were taken: the last days wide, years narrow, as
 * the rules keep them.
 */
final readonly class RetentionDrawing
{
    public const WIDTH = 1000;

    private const LEFT = 20;

    private const RIGHT = 980;

    /** Marks on the axis: days ago and words. */
    private const MARKS = [
        0 => 'now',
        1 => '1 day',
        7 => '1 week',
        30 => '1 month',
        91 => '3 months',
        365 => '1 year',
        1095 => '3 years',
        3650 => '10 years',
    ];

    /** @var list<array{x: int, isKept: bool, isHeld: bool, words: string}> */
    public array $dots;

    /** @var list<array{x: int, words: string}> */
    public array $marks;

    public int $stay;

    public int $go;

    /** @param  list<RetentionDecision>  $decisions */
    public function __construct(array $decisions, DateTimeImmutable $now)
    {
        $days = static fn (RetentionDecision $decision): float => max(
            0.0,
            ($now->getTimestamp() - $decision->backup->takenAt->getTimestamp()) / 86400,
        );
        $longest = max(7.0, ...array_map($days, $decisions), ...[0.0]);
        $x = static fn (float $ago): int => (int) round(
            self::RIGHT - (self::RIGHT - self::LEFT) * log1p($ago) / log1p($longest),
        );
        $this->dots = array_map(static fn (RetentionDecision $decision): array => [
            'x' => $x($days($decision)),
            'isKept' => $decision->isKept(),
            'isHeld' => array_intersect(
                array_column($decision->because, 'value'),
                [KeptBecause::Pinned->value, KeptBecause::WayBack->value, KeptBecause::OnlyOne->value],
            ) !== [],
            'words' => CarbonImmutable::instance($decision->backup->takenAt)->shown('j M Y H:i').': '
                .($decision->isKept() ? 'stays, ' : '').self::why($decision),
        ], $decisions);
        $marks = [];
        foreach (self::MARKS as $ago => $words) {
            $ago > $longest || $marks[] = ['x' => $x((float) $ago), 'words' => $words];
        }
        $this->marks = $marks;
        $this->stay = count(
            array_filter($decisions, static fn (RetentionDecision $decision): bool => $decision->isKept()),
        );
        $this->go = count($decisions) - $this->stay;
    }

    public function stays(): string
    {
        return Count::words($this->stay, 'stays', 'stay');
    }

    public function goes(): string
    {
        return match ($this->go) {
            0 => 'none goes',
            1 => '1 goes with the next night',
            default => "$this->go go with the next night",
        };
    }

    /** Why it stays, or that it goes. */
    public static function why(RetentionDecision $decision): string
    {
        return $decision->isKept()
            ? implode(', ', array_map(static fn (KeptBecause $one): string => $one->words(), $decision->because))
            : 'goes with the next night';
    }
}
