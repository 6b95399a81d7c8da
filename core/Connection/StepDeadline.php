<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use phpseclib3\Exception\TimeoutException;

/**
 * Within which one step over a connection has to go on, and to end; each step begins anew. Only what is waited for the
 * other side counts, not what is done here in between.
 */
final class StepDeadline
{
    private float $silent = 0.0;

    private float $inWindow = 0.0;

    private float $inAll = 0.0;

    private int $bytes = 0;

    private float $seconds = INF;

    private bool $isOver = false;

    public function __construct(private readonly ConnectionSettings $settings)
    {
    }

    /** @param  int|null  $most  bytes that the step may move; null where nobody knows, so that it has no end in all */
    public function begin(?int $most): void
    {
        $this->silent = $this->inWindow = $this->inAll = 0.0;
        $this->bytes = 0;
        $this->isOver = false;
        $this->seconds = $most === null ? INF : (float) $this->settings->secondsFor($most);
    }

    public function moved(int $bytes): void
    {
        $this->bytes += $bytes;
        $this->silent = $bytes > 0 ? 0.0 : $this->silent;
    }

    /** @param  float  $seconds  that were just waited for the other side */
    public function waited(float $seconds): void
    {
        $this->silent += $seconds;
        $this->inWindow += $seconds;
        $this->inAll += $seconds;
    }

    /**
     * @return float seconds to wait until it is asked again
     *
     * @throws TimeoutException when it has been silent, slow, or at it for too long
     */
    public function left(): float
    {
        $window = (float) $this->settings->paceSeconds();
        if ($this->inWindow >= $window) {
            if ($this->bytes * 60 < $this->settings->leastBytesAMinute * $window) {
                throw $this->over("$this->bytes bytes in $window seconds");
            }
            $this->inWindow = 0.0;
            $this->bytes = 0;
        }
        if ($this->silent >= $this->settings->answerSeconds) {
            throw $this->over("no answer within {$this->settings->answerSeconds} seconds");
        }
        if ($this->inAll >= $this->seconds) {
            throw $this->over(sprintf('not at its end after %d seconds', (int) $this->seconds));
        }

        return max(0.001, min(
            $this->settings->answerSeconds - $this->silent,
            $this->seconds - $this->inAll,
            $window - $this->inWindow,
        ));
    }

    /** Whether the step has been broken off, whatever became of the exception on its way through a library. */
    public function isOver(): bool
    {
        return $this->isOver;
    }

    private function over(string $why): TimeoutException
    {
        $this->isOver = true;

        return new TimeoutException($why);
    }
}
