<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Transfer\Job\Job;

/** Hears what each connection of a pool is doing, as it does it; may throw Cancelled, which ends what the pool does. */
interface TransferListener
{
    /** @param  int  $bytes moved so far of the job in hand; null with no job means that the connection is idle */
    public function connection(int $number, ?Job $job, int $bytes): void;

    /** Called at least every half second while jobs run. */
    public function beat(): void;
}
