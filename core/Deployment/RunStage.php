<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** Where a run stands. */
enum RunStage: string
{
    case Surveying = 'surveying';
    case BackingUp = 'backing_up';
    case Sending = 'sending';

    /** At the host, beside the document root. */
    case Unpacking = 'unpacking';
    case Replacing = 'replacing';
    case Proving = 'proving';
    case PuttingBack = 'putting_back';
}
