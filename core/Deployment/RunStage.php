<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** A stage of a run. */
enum RunStage: string
{
    case Surveying = 'surveying';
    case BackingUp = 'backing_up';
    case Sending = 'sending';

    /** Here, into the archive that the host unpacks. */
    case Packing = 'packing';

    /** At the host, beside the document root. */
    case Unpacking = 'unpacking';
    case Replacing = 'replacing';
    case Proving = 'proving';
    case PuttingBack = 'putting_back';

    /** Whether visitors see the old site and nothing else, so that the run may be cancelled and nothing was changed. */
    public function isUntouched(): bool
    {
        return in_array($this, [self::Surveying, self::BackingUp, self::Packing, self::Sending, self::Unpacking], true);
    }

    /** Whether it may stand still for as long as anybody likes. */
    public function canStand(): bool
    {
        return $this === self::BackingUp || $this === self::Sending;
    }
}
