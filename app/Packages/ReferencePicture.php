<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\Drawing\DrawnArc;
use Cellarium\Core\Package\Drawing\DrawnNode;
use Cellarium\Core\Package\Drawing\NodeKind;
use Cellarium\Core\Package\Drawing\ReferenceDrawing;
use Cellarium\Core\Words\Count;

/** The drawing of references, in pixels. */
final readonly class ReferencePicture
{
    private const LEFT = 24;

    private const LEAST_STEP = 17;

    private const MOST_STEP = 42;

    private const WIDTH = 806;

    private const MOST_RISE = 170;

    private const LOOP = 26;

    /** Between what visitors come to and what they do not. */
    private const GAP = 34;

    private const LABEL = 24;

    /** What the label of the last place takes, at its slant. */
    private const LABEL_WIDTH = 118;

    public int $step;

    public int $line;

    public int $width;

    public int $height;

    public function __construct(public ReferenceDrawing $drawing, public string $open)
    {
        $count = max(1, count($drawing->nodes));
        $room = self::WIDTH - self::LEFT - self::LABEL_WIDTH - $this->gap($count);
        $this->step = (int) max(self::LEAST_STEP, min(self::MOST_STEP, intdiv($room, $count)));
        $this->line = $this->highest() + 18;
        $this->width = max(self::WIDTH, $this->x($count - 1) + self::LABEL_WIDTH);
        $this->height = $this->line + 132;
    }

    /** @return list<array{number: int, node: DrawnNode, x: int, label: string, title: string}> */
    public function nodes(): array
    {
        $nodes = [];
        foreach ($this->drawing->nodes as $number => $node) {
            $nodes[] = [
                'number' => $number,
                'node' => $node,
                'x' => $this->x($number),
                'label' => self::short(self::name($node)),
                'title' => self::title($node),
            ];
        }

        return $nodes;
    }

    /** @return list<array{arc: DrawnArc, path: string, weight: string}> */
    public function arcs(): array
    {
        return array_map(fn (DrawnArc $arc): array => [
            'arc' => $arc,
            'path' => $this->path($arc),
            'weight' => number_format(min(3.4, 1 + log10($arc->times) * 0.8), 1),
        ], $this->drawing->arcs);
    }

    /** Where what nobody comes to begins; null where visitors come to all of it. */
    public function apart(): ?int
    {
        foreach ($this->drawing->nodes as $number => $node) {
            if (! $node->isReached) {
                return $number === 0 ? null : $this->x($number) - intdiv(self::GAP + $this->step, 2);
            }
        }

        return null;
    }

    public static function name(DrawnNode $node): string
    {
        return match ($node->kind) {
            NodeKind::File => $node->path,
            NodeKind::Directory => "$node->path/",
            NodeKind::Others => number_format($node->files).' more in '
                .($node->path === '.' ? 'the top' : "$node->path/"),
            NodeKind::Missing => 'not there',
        };
    }

    private static function title(DrawnNode $node): string
    {
        return match ($node->kind) {
            NodeKind::Directory => self::name($node).', '.Count::words($node->files, 'file'),
            NodeKind::Missing => 'What is asked for and is not in the package',
            default => self::name($node),
        };
    }

    /** The end of a path tells more than its beginning. */
    private static function short(string $name): string
    {
        return mb_strlen($name) <= self::LABEL ? $name : '…'.mb_substr($name, 1 - self::LABEL);
    }

    private function gap(int $number): int
    {
        $first = null;
        foreach ($this->drawing->nodes as $at => $node) {
            if (! $node->isReached) {
                $first = $at;
                break;
            }
        }

        return $first !== null && $first > 0 && $number >= $first ? self::GAP : 0;
    }

    private function x(int $number): int
    {
        return self::LEFT + $number * $this->step + $this->gap($number);
    }

    /** Above the line, of all arcs; no more room is left than they take. */
    private function highest(): int
    {
        $highest = self::LOOP;
        foreach ($this->drawing->arcs as $arc) {
            $half = intdiv(abs($this->x($arc->to) - $this->x($arc->from)), 2);
            $highest = max($highest, self::rise($half));
        }

        return $highest;
    }

    private static function rise(int $half): int
    {
        return (int) min(self::MOST_RISE, 12 + $half * 0.8);
    }

    /** Half an ellipse above the line; a small loop where a place leads to itself. */
    private function path(DrawnArc $arc): string
    {
        $from = $this->x($arc->from);
        $to = $this->x($arc->to);
        if ($from === $to) {
            $up = $this->line - self::LOOP;

            return "M$from $this->line C".($from - 16)." $up ".($from + 16)." $up $from $this->line";
        }
        $half = intdiv(abs($to - $from), 2);
        $rise = self::rise($half);

        return "M$from $this->line A$half $rise 0 0 ".($from < $to ? 1 : 0)." $to $this->line";
    }
}
