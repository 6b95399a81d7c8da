<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

enum RunEnd: string
{
    /** The new state is live and proven. */
    case Proven = 'proven';

    /** Nothing on the server was touched. */
    case Refused = 'refused';

    /** It failed, and the old state is whole again. */
    case PutBack = 'put_back';

    /** It failed, and the old state is not whole yet. */
    case Unfinished = 'unfinished';
}
