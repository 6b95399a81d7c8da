<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

/** The extent of a site that a login can touch. */
enum Extent: string
{
    case Whole = 'whole';
    case Part = 'part';
    case None = 'none';
}
