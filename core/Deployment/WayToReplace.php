<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\VerifiedBackup;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;

/**
 * Makes a document root hold what a plan says, or what it held before.
 *
 * Each step may be broken off anywhere and done again with the same journal.
 */
interface WayToReplace
{
    /**
     * @param  VerifiedBackup  $before  what the document root holds, which can be put back
     * @return list<string> paths whose mode the server refused to set
     *
     * @throws RunRefused where this way is barred; nothing has been touched then
     * @throws TransferFailed|StoreFailure|SurveyStopped|PathRefused|ProofFailed|ControlFailure
     */
    public function carryOut(Plan $plan, VerifiedBackup $before): array;

    /**
     * @return list<string> paths that the server does not hold as they were, although it confirmed every step
     *
     * @throws TransferFailed|StoreFailure|SurveyStopped|PathRefused|ProofFailed|ControlFailure
     */
    public function putBack(Plan $plan, VerifiedBackup $before): array;

    /**
     * Lets go of what is no longer needed once the new version is proven.
     *
     * @throws TransferFailed|StoreFailure|SurveyStopped|PathRefused|ProofFailed|ControlFailure it may be tried again
     */
    public function tidy(Plan $plan, VerifiedBackup $before): void;
}
