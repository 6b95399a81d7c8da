<?php

declare(strict_types=1);

namespace App\Storage;

use Cellarium\Core\Deployment\OtherRuns;
use Cellarium\Core\Deployment\RunEnd;

/** The runs of this installation. */
final class KnownRuns implements OtherRuns
{
    public function isGoing(string $run): ?bool
    {
        return RunIds::isGoing($run);
    }

    public function end(string $run): ?RunEnd
    {
        return RunIds::ended($run);
    }
}
