<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

/** How much of a site a login can touch. */
enum Extent: string
{
    case Whole = 'whole';
    case Part = 'part';
    case None = 'none';
}
