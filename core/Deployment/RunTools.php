<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\SurveyLimits;
use Cellarium\Core\Transfer\TransferPool;
use Psr\Clock\ClockInterface;

/** The connections, stores and bounds that a run works with. */
final readonly class RunTools
{
    /** @param  float  $collapseShare  of the known files that may be missing from a listing without a question */
    public function __construct(
        public TransferPool $pool,
        public ContentStore $store,
        public BackupShelf $shelf,
        public Journal $journal,
        public ClockInterface $clock,
        public SurveyLimits $limits = new SurveyLimits,
        public float $collapseShare = 0.5,
    ) {
    }
}
