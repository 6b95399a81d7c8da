<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** The use that a browser makes of a reference. */
enum ReferenceKind: string
{
    /** Fetched with the page: without it something is missing from what visitors see. */
    case Load = 'load';

    /** Followed when somebody asks for it. */
    case Link = 'link';
}
