<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** Runs as they are known here, by the id that is part of the names they lay down. */
interface OtherRuns
{
    /** Whether it is going on; null for one that is not known here. */
    public function isGoing(string $run): ?bool;

    /** How it ended; null for one that has not, and for one that is not known here. */
    public function end(string $run): ?RunEnd;
}
