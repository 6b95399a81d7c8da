<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Deployment\OtherRuns;

/** No other runs, or those that a test speaks of. */
final readonly class QuietRuns implements OtherRuns
{
    /** @param  (\Closure(string): ?bool)|null  $isGoing */
    public function __construct(private ?\Closure $isGoing = null)
    {
    }

    public function isGoing(string $run): ?bool
    {
        return $this->isGoing === null ? null : ($this->isGoing)($run);
    }

    public function end(string $run): null
    {
        return null;
    }
}
