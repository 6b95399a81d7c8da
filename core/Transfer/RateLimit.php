<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

/** Bytes a second that one connection may move; what it did not use is not saved up for more than a second. */
final class RateLimit
{
    private int $moved = 0;

    /** Bytes of the transfer in hand. */
    private int $inHand = 0;

    private ?float $since = null;

    /** @param  int  $bytesASecond  from 1 */
    public function __construct(private readonly int $bytesASecond)
    {
    }

    /**
     * @param  float  $now  seconds on a clock that only goes forward
     * @param  int  $bytes  moved so far of one transfer; fewer than before are those of the next one
     * @return float seconds to wait before more is moved
     */
    public function wait(float $now, int $bytes): float
    {
        if ($bytes < $this->inHand) {
            $this->inHand = 0;
        }
        $this->moved += $bytes - $this->inHand;
        $this->inHand = $bytes;
        $this->since ??= $now;
        $ahead = $this->moved / $this->bytesASecond - ($now - $this->since);
        if ($ahead < -1.0) {
            [$this->since, $this->moved] = [$now - 1.0, 0];
        }

        return max(0.0, $ahead);
    }
}
