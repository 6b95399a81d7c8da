<?php

declare(strict_types=1);

namespace App\Files;

use Cellarium\Core\Transfer\Job;
use Cellarium\Core\Transfer\LaneListener;

/** Is heard from while a server keeps silent, so that what is looked for can be cancelled then too. */
final readonly class WorkBeat implements LaneListener
{
    /** @param  \Closure(): mixed  $beat */
    public function __construct(private \Closure $beat)
    {
    }

    public function lane(int $lane, ?Job $job, int $bytes): void
    {
    }

    public function beat(): void
    {
        ($this->beat)();
    }
}
