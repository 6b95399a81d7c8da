<?php

declare(strict_types=1);

namespace Cellarium\Core\Pace;

/**
 * The number of connections that a run opens to an account: as many as were measured to help, and never more than
 * allowed.
 */
final readonly class ConnectionCount
{
    /** More of them are worth it where they move so much more in the same time. */
    private const GAIN = 1.1;

    /**
     * @param  list<array{int, Pace}>  $runs  connections and how it went, of earlier runs on the same account
     * @param  int  $first  where nothing was measured
     * @param  int  $most  that account and host allow
     */
    public static function next(array $runs, int $first, int $most): int
    {
        $speeds = [];
        foreach ($runs as [$connections, $pace]) {
            // Files of one kind, so that only the connections differ.
            $speeds[$connections][] = 1 / max(1e-9, $pace->of(self::MANY, 0, $connections));
        }
        if ($speeds === []) {
            return max(1, min($first, $most));
        }
        $middle = array_map(self::middle(...), $speeds);
        ksort($middle);
        $best = (int) array_key_first($middle);
        foreach ($middle as $connections => $speed) {
            $best = $speed >= $middle[$best] * self::GAIN ? $connections : $best;
        }
        // The most that were tried were the best: twice as many may be better still.
        $isLast = $best === array_key_last($middle);

        return max(1, min($isLast ? max($first, $best * 2) : $best, $most));
    }

    private const MANY = 1000;

    /** @param  non-empty-list<float>  $values */
    private static function middle(array $values): float
    {
        sort($values);

        return $values[intdiv(count($values), 2)];
    }
}
