<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** The kind of a proven run, as far as it decides which files count as left there by us. */
enum PastRunKind
{
    /** A package was put there. */
    case Deploy;

    /** What single files hold, by a person; they are that person's. */
    case ByHand;

    /** What another run did was taken back. */
    case Undo;

    /** What a backup held was put there, all of it or some paths. */
    case Restore;
}
