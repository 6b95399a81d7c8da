<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

/** Share done, speed now and on average, and time left, from bytes counted at moments. */
final class SpeedMeter
{
    private const WINDOW_SECONDS = 5.0;

    /** @var list<array{float, int}> moment and bytes done by then */
    private array $samples = [];

    /** @param  float  $start seconds on any clock that only goes forward */
    public function __construct(private readonly float $start, private readonly int $allBytes)
    {
        $this->samples = [[$start, 0]];
    }

    public function at(float $moment, int $bytes): void
    {
        $this->samples[] = [$moment, $bytes];
        while (count($this->samples) > 2 && $this->samples[1][0] < $moment - self::WINDOW_SECONDS) {
            array_shift($this->samples);
        }
    }

    /** 0.0 to 1.0; nothing to do is all done. */
    public function share(): float
    {
        return $this->allBytes === 0 ? 1.0 : min(1.0, $this->bytes() / $this->allBytes);
    }

    /** Bytes a second over the last five seconds; null before there is anything to go by. */
    public function now(): ?float
    {
        return $this->rate($this->samples[0]);
    }

    /** Bytes a second since the start. */
    public function average(): ?float
    {
        return $this->rate([$this->start, 0]);
    }

    /** Seconds left at the mean of both speeds; null while it cannot be told. */
    public function left(): ?float
    {
        $now = $this->now();
        $average = $this->average();
        $rate = $now === null || $average === null ? null : ($now + $average) / 2;

        return $rate === null || $rate <= 0.0 ? null : ($this->allBytes - $this->bytes()) / $rate;
    }

    private function bytes(): int
    {
        return $this->samples[count($this->samples) - 1][1];
    }

    /** @param  array{float, int}  $from */
    private function rate(array $from): ?float
    {
        [$moment, $bytes] = $this->samples[count($this->samples) - 1];

        return $moment - $from[0] < 0.05 ? null : ($bytes - $from[1]) / ($moment - $from[0]);
    }
}
