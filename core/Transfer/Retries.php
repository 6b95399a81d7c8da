<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\FailureReason;

/**
 * Trying a failed job again: a few times, and not at all any more once the server has been silent for so long over all
 * connections. What follows then, like putting back, ends with its first try and says so.
 */
final class Retries
{
    private const TRIES = 3;

    /** Two connections that waited for their answer in vain. */
    private const SILENT_SECONDS = 60.0;

    private float $heardAt;

    private float $failedAt;

    /** @param  float  $now  seconds, from any beginning, that never go back */
    public function __construct(float $now)
    {
        $this->heardAt = $this->failedAt = $now;
    }

    /** Work begins; while nothing was asked, nobody was silent. */
    public function begin(float $now): void
    {
        if ($now - max($this->heardAt, $this->failedAt) >= self::SILENT_SECONDS) {
            $this->heardAt = $now;
        }
    }

    /** The server has answered something, or bytes have moved. */
    public function heard(float $now): void
    {
        $this->heardAt = $now;
    }

    /** @param  int  $tries  so far, from 1 */
    public function mayTryAgain(FailureReason $reason, int $tries, float $now): bool
    {
        $this->failedAt = $now;
        if (! $reason->isTransient() || $tries >= self::TRIES) {
            return false;
        }

        return $reason !== FailureReason::TimedOut || $now - $this->heardAt < self::SILENT_SECONDS;
    }
}
