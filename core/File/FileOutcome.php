<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** The state of a step that was broken off. */
enum FileOutcome: string
{
    case Done = 'done';

    /** Everything is as it was. */
    case NotDone = 'not_done';

    /** Neither what was nor what was to be: somebody else was there, or the server tells something else. */
    case Unclear = 'unclear';
}
