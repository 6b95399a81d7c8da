<?php

declare(strict_types=1);

namespace Cellarium\Core\Work;

/** A piece of work that waits, or that a worker has in hand. */
final readonly class WorkAtHost
{
    /** @param  int  $id  lower ones came first */
    public function __construct(public int $id, public Claim $claim)
    {
    }
}
