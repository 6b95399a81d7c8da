<?php

declare(strict_types=1);

namespace Cellarium\Core\Work;

/** A piece of work that waits, or that a worker has in hand. */
final readonly class WorkAtHost
{
    /**
     * @param  int  $id  lower ones came first
     * @param  string|null  $host  whose answers it waits for, in lower case; null where it asks no single host
     */
    public function __construct(public int $id, public Urgency $urgency, public ?string $host)
    {
    }
}
