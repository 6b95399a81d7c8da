<?php

declare(strict_types=1);

namespace Tests\Support;

use Psr\Clock\ClockInterface;

final readonly class FixedClock implements ClockInterface
{
    public function __construct(private string $at = '2026-11-20 10:00:00')
    {
    }

    public function now(): \DateTimeImmutable
    {
        return new \DateTimeImmutable($this->at, new \DateTimeZone('UTC'));
    }
}
