<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** The space used in an account at one step of a deployment. */
final readonly class RoomStep
{
    /**
     * @param  string  $name  of the step
     * @param  int  $bytes  used then
     * @param  int  $short  bytes more than there are; 0 where it fits, or nobody knows how much there is
     */
    public function __construct(public string $name, public int $bytes, public int $short)
    {
    }
}
