<?php

declare(strict_types=1);

namespace App\Files;

use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\TransferListener;

/** Is heard from while a server keeps silent, so that what is looked for can be cancelled then too. */
final readonly class WorkBeat implements TransferListener
{
    /** @param  \Closure(): mixed  $beat */
    public function __construct(private \Closure $beat)
    {
    }

    public function connection(int $number, ?Job $job, int $bytes): void
    {
    }

    public function beat(): void
    {
        ($this->beat)();
    }
}
