<?php

declare(strict_types=1);

namespace App\Models;

/** The manner in which a run is proven. */
enum ProofBy: string
{
    /** By fetching what changed as visitors do; what no address shows is read back. */
    case Visitors = 'visitors';

    /** By reading every file back from the server: visitors get nothing from this host yet, so nobody can be asked. */
    case ReadingBack = 'reading_back';

    /**
     * What a run is proven by where nobody has chosen. A site whose name leads elsewhere is asked for at its host's own
     * address; where not even that is known to show it, only the server can tell.
     */
    public static function usual(Site $site): self
    {
        return $site->leads_elsewhere && $site->root_proven_at === null ? self::ReadingBack : self::Visitors;
    }
}
