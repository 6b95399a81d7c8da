<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

enum RunEnd: string
{
    /** The new state is live and proven. */
    case Proven = 'proven';

    /** Nothing on the server was touched. */
    case Refused = 'refused';

    /** It failed, and the old state is whole again. */
    case PutBack = 'put_back';

    /** It failed, the old state was put back, and not all of it could be shown to be there. */
    case PutBackUnproven = 'put_back_unproven';

    /** It failed, and the old state is not whole yet. */
    case Unfinished = 'unfinished';
}
