<?php

declare(strict_types=1);

namespace App\Plans;

use App\Text\Amount;
use Cellarium\Core\Plan\Room;

/** The space used in an account at every step, as bars beside each other below a line for all there is. */
final readonly class RoomDrawing
{
    public const WIDTH = 340;

    public const HEIGHT = 126;

    private const FLOOR = 104;

    private const TALLEST = 80;

    private const BAR = 44;

    private const STEP = 68;

    public float $limitAt;

    /** @var list<array{x: int, y: float, height: float, tone: string, name: string, words: string, short: string}> */
    public array $bars;

    public function __construct(private Room $room)
    {
        $scale = self::TALLEST / max(1, $room->most(), (int) $room->limit);
        $this->limitAt = round(self::FLOOR - $scale * (int) $room->limit, 1);
        $bars = [];
        foreach ($room->steps as $number => $step) {
            $height = round(max(2, $step->bytes * $scale), 1);
            $bars[] = [
                'x' => $number * self::STEP + intdiv(self::STEP - self::BAR, 2),
                'y' => self::FLOOR - $height,
                'height' => $height,
                'tone' => match (true) {
                    $step->short > 0 => 'now',
                    $step->bytes > $room->steps[0]->bytes => 'soon',
                    default => 'proven',
                },
                'name' => $step->name,
                'words' => Amount::bytes($step->bytes),
                'short' => $step->short > 0 ? Amount::bytes($step->short).' too much' : '',
            ];
        }
        $this->bars = $bars;
    }

    /** Whether there is enough, as far as the host says. */
    public function isEnough(): bool
    {
        return $this->room->firstShort() === null;
    }

    /** All there is; null where the host does not say. */
    public function limit(): ?string
    {
        return $this->room->limit === null ? null : Amount::bytes($this->room->limit).' is all there is';
    }

    /** Whether the words of the line stand below it, since it is at the top. */
    public function sentence(): string
    {
        $short = $this->room->firstShort();

        return match (true) {
            $this->room->limit === null => 'The host does not say how much this account may hold.',
            $short === null => '',
            $short->name === 'now' => 'The account is over its space already. Make room there, or ask the host for '
                .'more.',
            default => Amount::bytes($short->short)." short when it is $short->name. Make room in the account, ask "
                .'the host for more space, or leave what is not needed out of the package.',
        };
    }

    /** @return array<string, string> the same as text, by step */
    public function asText(): array
    {
        $text = [];
        foreach ($this->bars as $bar) {
            $text[$bar['name']] = $bar['words'].($bar['short'] === '' ? '' : ", {$bar['short']}");
        }

        return $text;
    }
}
