<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Plan\Plan;

/** The end of a run. */
final readonly class RunResult
{
    /**
     * @param  Manifest|null  $after  what the document root holds now, hashes known where they are
     * @param  list<PageProof>  $proofs
     * @param  int  $addresses  how many addresses could have been fetched; $proofs are of that many or fewer
     * @param  int  $readBack  files that were read back from the server and hashed, beside the proofs
     * @param  int  $readBackOf  files that no address shows; $readBack are of these
     * @param  Manifest|null  $before  what the backup holds, for a run that was proven
     * @param  list<string>  $unproven  paths and addresses that were put back and did not show what they held before
     * @param  list<ModeNotSet>  $modesNotSet  of a run that was proven
     * @param  list<string>  $notes  what visitors meet beside the bytes, in sentences
     * @param  LiveFindings|null  $found  of a run that was proven and whose site has addresses
     * @param  string|null  $leftBehind  why the old tree of a swap is still beside the new one
     * @param  \Throwable|null  $cause  why it did not come to its end
     * @param  \Throwable|null  $notPutBack  why not even putting back worked; the run is to be taken up again
     */
    public function __construct(
        public RunEnd $end,
        public ?string $backup = null,
        public ?Plan $plan = null,
        public ?Manifest $after = null,
        public array $proofs = [],
        public ?\Throwable $cause = null,
        public ?\Throwable $notPutBack = null,
        public int $addresses = 0,
        public int $readBack = 0,
        public array $unproven = [],
        public ?Manifest $before = null,
        public array $modesNotSet = [],
        public ?string $leftBehind = null,
        public array $notes = [],
        public int $readBackOf = 0,
        public ?LiveFindings $found = null,
    ) {
    }

    /** @param  string|null  $why  something stays on the server that is no longer needed */
    public function leaving(?string $why): self
    {
        return new self(
            $this->end,
            $this->backup,
            $this->plan,
            $this->after,
            $this->proofs,
            $this->cause,
            $this->notPutBack,
            $this->addresses,
            $this->readBack,
            $this->unproven,
            $this->before,
            $this->modesNotSet,
            $why,
            $this->notes,
            $this->readBackOf,
            $this->found,
        );
    }
}
