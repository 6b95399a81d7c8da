<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Contents that nothing referred to when they were moved aside; they are deleted a week later, unless they came back.
 */
final readonly class AsideContent
{
    /**
     * @param  int  $bytes  sealed
     * @param  int  $movedAt  seconds since 1970
     */
    public function __construct(public int $bytes, public int $movedAt)
    {
    }
}
