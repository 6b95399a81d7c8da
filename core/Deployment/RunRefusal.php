<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** Why a run ended before anything on the server was touched. */
enum RunRefusal: string
{
    case ChangedSincePlanned = 'changed_since_planned';

    /** What is on the server, read now, differs from what was deployed last; a person says which is to stay. */
    case Questions = 'questions';

    case NoRoom = 'no_room';

    /** Much less is there than was known; a person says whether that is right. */
    case Collapsed = 'collapsed';

    /** Another run is at work in the same directory. */
    case PlaceInUse = 'place_in_use';

    /** The site lacks what the package needs. */
    case Lacks = 'lacks';

    /** The chosen way to replace cannot be gone; another can. */
    case WayBarred = 'way_barred';

    case NotPossible = 'not_possible';

    /** Whether the plan is to be made again, and then looked at, instead of being given up. */
    public function asksForAnotherPlan(): bool
    {
        return in_array($this, [self::ChangedSincePlanned, self::Questions, self::WayBarred], true);
    }
}
