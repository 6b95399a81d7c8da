<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/** The answer that an address of a package would give. */
enum ServedAs: string
{
    case Page = 'page';

    /** A directory without a start page: a listing of its names, or a refusal, as the server is set. */
    case Listing = 'listing';

    /** A file that should not be fetched by everybody, and could be. */
    case Exposed = 'exposed';
}
