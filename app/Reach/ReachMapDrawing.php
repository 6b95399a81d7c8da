<?php

declare(strict_types=1);

namespace App\Reach;

use Illuminate\Support\Str;

/**
 * The drawing of a reach map, in pixels: rows below one another, lanes beside one another, right of the names of the
 * directories.
 */
final readonly class ReachMapDrawing
{
    private const ROW = 38;

    /** Width of the column of names. */
    private const NAMES = 340;

    private const LEAST_WIDTH = 800;

    private const WIDE_LANE = 84;

    private const NARROW_LANE = 22;

    /** Below this width a lane has no room for words. */
    private const ROOM_FOR_WORDS = 62;

    private const FOOT = 26;

    public int $lane;

    public bool $narrow;

    public int $top;

    public int $width;

    public int $height;

    /**
     * @param  list<MapRow>  $rows
     * @param  list<MapLane>  $lanes
     */
    public function __construct(private array $rows, private array $lanes)
    {
        $shared = intdiv(self::WIDE_LANE * 9, max(1, count($lanes)));
        $this->lane = max(self::NARROW_LANE, min(self::WIDE_LANE, $shared));
        $this->narrow = $this->lane < self::ROOM_FOR_WORDS;
        $this->top = $this->narrow ? 124 : 84;
        $right = self::NAMES + count($lanes) * $this->lane + ($this->narrow ? 70 : 50);
        $this->width = max(self::LEAST_WIDTH, $right);
        $this->height = $this->top + count($rows) * self::ROW + self::FOOT;
    }

    /**
     * @return list<array{
     *     number: int,
     *     row: MapRow,
     *     x: int,
     *     y: int,
     *     height: int,
     *     name: string,
     *     nameAt: int,
     *     below: string,
     *     belowTone: string,
     * }>  x: where the name begins; nameAt, and 15 below it a second line: base lines of the text
     */
    public function rows(): array
    {
        $drawn = [];
        foreach ($this->rows as $number => $row) {
            $y = $this->y($number);
            $below = $row->isDirectory() ? self::below($row) : '';
            $drawn[] = [
                'number' => $number,
                'row' => $row,
                'x' => 16 + $row->depth * 20,
                'y' => $y,
                'height' => self::ROW,
                'name' => self::name($row),
                'nameAt' => $y + ($below === '' ? 24 : 16),
                'below' => $below,
                'belowTone' => $row->serves !== [] ? 'serves' : ('unlooked'.($row->gone ? ' is-now' : '')),
            ];
        }

        return $drawn;
    }

    private static function name(MapRow $row): string
    {
        return match ($row->kind) {
            RowKind::Fold => "+ $row->name",
            RowKind::Link => Str::limit($row->name, 18).' → '.Str::limit($row->targetWords(), 24),
            RowKind::Directory => Str::limit($row->name, max(8, 34 - $row->depth * 2)),
        };
    }

    private static function below(MapRow $row): string
    {
        return $row->serves === []
            ? (string) $row->trouble()
            : '⌂ serves '.Str::limit(implode(', ', $row->serves), 38);
    }

    /** @return list<string> curves from a link to the row it points to, as path data */
    public function leads(): array
    {
        $curves = [];
        foreach ($this->rows as $number => $row) {
            if ($row->leads !== null) {
                [$x, $out] = [self::NAMES - 34, self::NAMES - 4];
                [$from, $to] = [$this->y($number) + self::ROW / 2, $this->y($row->leads) + self::ROW / 2];
                $curves[] = "M$x {$from}C$out $from $out $to $x {$to}m5 -4l-5 4l5 4";
            }
        }

        return $curves;
    }

    /**
     * @return list<array{lane: MapLane, x: int, from: int, to: int, half: int, login: string, label: string}> x: the
     *     middle of the lane; from, to, half: its bar
     */
    public function lanes(): array
    {
        $drawn = [];
        foreach ($this->lanes as $index => $lane) {
            $login = Str::limit($lane->login, $this->narrow ? 14 : 16);
            $drawn[] = [
                'lane' => $lane,
                'x' => self::NAMES + $index * $this->lane + intdiv($this->lane, 2),
                'from' => $this->y($lane->from) + 6,
                'to' => $this->y($lane->to + 1) - 6,
                'half' => $this->narrow ? 7 : 11,
                'login' => $login,
                'label' => $login.($this->narrow ? '' : " $lane->note").": $lane->words",
            ];
        }

        return $drawn;
    }

    public function foot(): int
    {
        return $this->height - self::FOOT;
    }

    private function y(int $row): int
    {
        return $this->top + $row * self::ROW;
    }
}
