<?php

declare(strict_types=1);

namespace App\Models;

/** The kind of a proof. */
enum ProofKind: string
{
    case DocumentRoot = 'document_root';

    /** That the pages of a site are the new ones. */
    case Live = 'live';

    case Reach = 'reach';

    /** That the sign-in of a closed FTP user is refused. */
    case Refusal = 'refusal';
}
