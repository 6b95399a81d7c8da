<?php

declare(strict_types=1);

namespace App\Plans;

use App\Text\Amount;
use Cellarium\Core\Plan\Change;

/** The numbers of a plan's changes: as Plan::counts() gave them when it was made. */
final readonly class PlanTotals
{
    /** Width of the drawing of shares, and the gap between two of them. */
    private const WIDTH = 1000;

    private const GAP = 2;

    /** In the order they are shown. */
    private const ORDER = [
        Change::Asked,
        Change::Add,
        Change::Replace,
        Change::SetAside,
        Change::LeftAway,
        Change::Keep,
        Change::Same,
    ];

    /** @param  array<string, array{files: int, bytes: int, was: int}>  $counts  by change */
    public function __construct(private array $counts)
    {
    }

    public function files(Change ...$changes): int
    {
        return array_sum(array_map(fn (Change $change): int => $this->counts[$change->value]['files'] ?? 0, $changes));
    }

    /** Bytes that are sent or taken away. */
    public function bytes(Change ...$changes): int
    {
        return array_sum(array_map(fn (Change $change): int => $this->counts[$change->value]['bytes'] ?? 0, $changes));
    }

    /** Bytes that lie on the server now. */
    public function was(Change ...$changes): int
    {
        return array_sum(array_map(fn (Change $change): int => $this->counts[$change->value]['was'] ?? 0, $changes));
    }

    /** @return list<array{tone: string, words: string}> how many files of each kind of change, those there are */
    public function words(): array
    {
        $words = [];
        foreach ($this->present() as $change) {
            $isSent = $change === Change::Add || $change === Change::Replace;
            $words[] = [
                'tone' => self::tone($change),
                'words' => number_format($this->files($change))." {$change->label()}"
                    .($isSent ? ' · '.Amount::bytes($this->bytes($change)) : ''),
            ];
        }

        return $words;
    }

    /** @return list<Change> of which there are files */
    public function present(): array
    {
        return array_values(array_filter(self::ORDER, fn (Change $change): bool => $this->files($change) > 0));
    }

    /** @return list<array{tone: string, x: float, width: float}> the drawing of shares, of WIDTH units */
    public function shares(): array
    {
        $all = max(1, $this->files(...self::ORDER));
        $at = 0.0;
        $shares = [];
        foreach ($this->present() as $change) {
            $width = self::WIDTH * $this->files($change) / $all;
            $shares[] = [
                'tone' => self::tone($change),
                'x' => round($at, 2),
                'width' => round(max(0, $width - self::GAP), 2),
            ];
            $at += $width;
        }

        return $shares;
    }

    /** The style a change is shown in. */
    public static function tone(Change $change): string
    {
        return match ($change) {
            Change::Add => 'proven',
            Change::Replace => 'soon',
            Change::Same => 'plain',
            Change::Keep, Change::LeftAway => 'kept',
            Change::SetAside, Change::Asked => 'now',
        };
    }
}
