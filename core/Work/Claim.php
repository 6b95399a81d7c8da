<?php

declare(strict_types=1);

namespace Cellarium\Core\Work;

/** The facts about a piece of work by which a free worker takes it or leaves it for later. */
final readonly class Claim
{
    public ?string $host;

    /**
     * @param  string|null  $host  whose answers it waits for; null where it asks no single host
     * @param  string|null  $turn  of work with the same turn one piece is in hand at a time, the oldest first; null
     *     where it stands in nobody's way
     */
    public function __construct(public Urgency $urgency, ?string $host = null, public ?string $turn = null)
    {
        $this->host = $host === null ? null : strtolower($host);
    }
}
