<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Survey;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/**
 * A listing that was compared with what was known and may be believed: nothing is planned from, backed up by or
 * compared with another one. There is no way to have one but to look.
 */
final readonly class TrustedListing
{
    /** @param  list<string>  $skipped  as Survey has them */
    private function __construct(
        public RemotePath $root,
        public Manifest $manifest,
        public array $skipped,
    ) {
    }

    /**
     * @param  Survey  $survey  of the root, just made
     * @param  EarlierLook  $known  the last look at it
     * @param  float  $share  of the known files that may be missing without a question, 0 to 1
     * @param  bool  $isAccepted  whether a person has said that it is right, however much is missing
     *
     * @throws ListingDoubted
     * @throws TransferFailed where the listing leaves out what is there when it is asked for another way
     */
    public static function fromSurvey(
        TransferPool $pool,
        RemotePath $root,
        Survey $survey,
        EarlierLook $known,
        float $share,
        bool $isAccepted = false,
    ): self {
        $shrinkage = $isAccepted
            ? null
            : (new ListingShrinkageCheck($pool, $share))->look($root, $survey->manifest, $known->manifest);
        if ($shrinkage !== null) {
            throw new ListingDoubted($shrinkage);
        }

        return new self($root, $survey->manifest, $survey->skipped);
    }

    /** What was read of its files at an earlier look, where they look as they did then. */
    public function knowing(EarlierLook $known): self
    {
        return new self($this->root, $known->applied($this->manifest), $this->skipped);
    }
}
