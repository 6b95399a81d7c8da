<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

/** Speed over time, in as many points as are drawn, however long it takes: then each stands for a longer time. */
final class SpeedHistory
{
    private const MOST = 120;

    /** @var list<float> bytes a second, each over the same time */
    private array $speeds = [];

    /** Seconds that each point stands for. */
    private float $each = 1.0;

    private float $since;

    private int $bytes = 0;

    public function __construct(float $now)
    {
        $this->since = $now;
    }

    /** @param  int  $bytes  moved so far */
    public function at(float $now, int $bytes): void
    {
        while ($now - $this->since >= $this->each) {
            // Where nothing was heard for longer, it was the same all along.
            $points = (int) (($now - $this->since) / $this->each);
            $this->speeds[] = max(0, $bytes - $this->bytes) / $points / $this->each;
            $this->bytes += intdiv(max(0, $bytes - $this->bytes), $points);
            $this->since += $this->each;
            count($this->speeds) < self::MOST || $this->halve();
        }
    }

    /** @return list<int> bytes a second, oldest first */
    public function speeds(): array
    {
        return array_map(intval(...), $this->speeds);
    }

    /** @return float seconds each point stands for */
    public function each(): float
    {
        return $this->each;
    }

    private function halve(): void
    {
        $this->speeds = array_map(
            static fn (array $pair): float => array_sum($pair) / count($pair),
            array_chunk($this->speeds, 2),
        );
        $this->each *= 2;
    }
}
