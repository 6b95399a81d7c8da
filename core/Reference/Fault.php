<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** A fault of a reference. The values are codes of findings; they are stable. */
enum Fault: string
{
    /** The name is there in another case or Unicode form: right on many computers, wrong on a server. */
    case WrongCase = 'reference_case';

    case Missing = 'reference_missing';

    /** The directory is there and has no start page. */
    case Listing = 'reference_listing';

    case AboveRoot = 'reference_above_root';

    case LocalFile = 'reference_local_file';

    case PrivateHost = 'reference_private_host';

    case WithLogin = 'reference_with_login';

    /** Something is loaded by http: into a page that may be one of https:. */
    case PlainHttp = 'reference_plain_http';

    /** The document is there and has no such place. */
    case NoSuchPlace = 'reference_fragment';
}
