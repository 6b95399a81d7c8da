<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

/** Hears what each connection of a pool is doing, as it does it; may throw Cancelled, which ends what the pool does. */
interface LaneListener
{
    /** @param  int  $bytes moved so far of the job in hand; null with no job means the lane is idle */
    public function lane(int $lane, ?Job $job, int $bytes): void;

    /** Called at least every half second while jobs run. */
    public function beat(): void;
}
