<?php

declare(strict_types=1);

namespace Tests\Architecture;

/** The drawing of the rooms: a room stands on a floor above all that it uses. Made from Rooms, never by hand. */
final class RoomsDrawing
{
    private const WIDTH = 1050;

    private const LEFT = 130;

    private const ACROSS = 6;

    private const GAP = 10;

    private const HIGH = 44;

    private const INK = '#20292c';

    private int $y = 20;

    private string $boxes = '';

    public static function svg(): string
    {
        $drawing = new self;
        $drawing->house('app', 'use cases, pages', '#d9e9e5', Rooms::APP);
        $drawing->y += 16;
        $drawing->house('core', 'rules, computation', '#f3e6c8', Rooms::CORE);
        $height = $drawing->y + 10;
        $words = count(Rooms::APP).' rooms of app above '.count(Rooms::CORE).' rooms of core, each above what it uses';

        return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 '.self::WIDTH." $height\""
            .' font-family="sans-serif" fill="'.self::INK."\" role=\"img\" aria-label=\"$words\">\n"
            ."<rect width=\"100%\" height=\"100%\" fill=\"#fffdf8\"/>\n$drawing->boxes</svg>\n";
    }

    /** @param  array<string, list<string>>  $rooms */
    private function house(string $name, string $about, string $fill, array $rooms): void
    {
        $this->boxes .= '<text x="20" y="'.($this->y + 20)."\" font-weight=\"700\" font-size=\"15\">$name</text>\n"
            .'<text x="20" y="'.($this->y + 38)."\" fill=\"#5c686b\" font-size=\"11\">$about</text>\n";
        foreach (self::floors($rooms) as $floor) {
            foreach (array_chunk($floor, self::ACROSS) as $row) {
                foreach ($row as $at => $room) {
                    $this->box($room, $rooms[$room], $at, $fill);
                }
                $this->y += self::HIGH + 6;
            }
            $this->y += 8;
        }
    }

    /** @param  list<string>  $uses */
    private function box(string $room, array $uses, int $at, string $fill): void
    {
        $width = intdiv(self::WIDTH - self::LEFT - 20, self::ACROSS) - self::GAP;
        $x = self::LEFT + $at * ($width + self::GAP);
        $below = match (count($uses)) {
            0 => 'uses no other',
            1, 2 => 'uses '.implode(', ', $uses),
            default => 'uses '.count($uses).' others',
        };
        $title = $uses === [] ? $below : 'uses '.implode(', ', $uses);
        $this->boxes .= "<g><title>$room $title</title>"
            ."<rect x=\"$x\" y=\"$this->y\" width=\"$width\" height=\"".self::HIGH.'" rx="6" stroke="#ddd6c8"'
            ." fill=\"$fill\"/>"
            .'<text x="'.($x + 9).'" y="'.($this->y + 19)."\" font-weight=\"700\" font-size=\"13\">$room</text>"
            .'<text x="'.($x + 9).'" y="'.($this->y + 35)."\" font-size=\"10.5\" fill=\"#5c686b\">$below</text></g>\n";
    }

    /**
     * @param  array<string, list<string>>  $rooms
     * @return list<list<string>> the highest first
     */
    private static function floors(array $rooms): array
    {
        $heights = [];
        foreach ($rooms as $room => $uses) {
            $heights[$room] = array_reduce(
                $uses,
                static fn (int $height, string $used): int => max($height, 1 + $heights[$used]),
                0,
            );
        }
        $floors = [];
        foreach ($heights as $room => $height) {
            $floors[$height][] = $room;
        }
        krsort($floors);

        return array_values($floors);
    }
}
