<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** A person's answer where the server and the package both differ from what was deployed last. */
enum Choice: string
{
    /** As it is on the server. */
    case Theirs = 'theirs';

    /** As the package has it. */
    case Ours = 'ours';

    /** The package's under the name, the server's beside it. */
    case Both = 'both';

    /** Whichever was changed later; where that is not known, it stays a question. */
    case Newer = 'newer';
}
