<?php

declare(strict_types=1);

namespace Cellarium\Core\Pace;

/** The speed of one stage of a run, from which the same stage of a later one is foretold. */
final readonly class Pace
{
    /** What the round trips of one file cost, in bytes that could be moved meanwhile: many small files are slow. */
    public const BYTES_A_FILE = 50_000;

    /** @param  float  $secondsAByte  over one connection; a file counts as so many bytes more */
    private function __construct(private float $secondsAByte)
    {
    }

    /** Null where nothing was moved, which tells nothing. */
    public static function measured(int $files, int $bytes, float $seconds, int $connections): ?self
    {
        return $files < 1
            ? null
            : new self($seconds * max(1, $connections) / self::work($files, $bytes));
    }

    /** @return float seconds */
    public function of(int $files, int $bytes, int $connections): float
    {
        return $files === 0
            ? 0.0
            : $this->secondsAByte * self::work($files, $bytes) / max(1, min($files, $connections));
    }

    private static function work(int $files, int $bytes): int
    {
        return $bytes + self::BYTES_A_FILE * $files;
    }
}
