<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

/** The steps of one proof; it holds when every one of them does. */
final readonly class Evidence
{
    /** @param  non-empty-list<ProofStep>  $steps  up to the first that does not hold */
    public function __construct(public array $steps)
    {
    }

    public function holds(): bool
    {
        return $this->broken() === null;
    }

    public function broken(): ?ProofStep
    {
        foreach ($this->steps as $step) {
            if (! $step->ok) {
                return $step;
            }
        }

        return null;
    }

    /** Whether it could be carried through at all; where not, nothing is known that was not known before. */
    public function decided(): bool
    {
        return $this->broken() === null || $this->broken()->decided;
    }
}
