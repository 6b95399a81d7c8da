<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\Backup;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Transfer\TransferFailed;

/** Hears how a run goes on; may throw Cancelled at any call until putting back has begun. */
interface RunListener
{
    /**
     * @param  int  $files  files this stage will move
     * @param  int  $bytes  their bytes
     */
    public function stage(RunStage $stage, int $files, int $bytes): void;

    /**
     * Some files could not be sent; nothing visitors see has changed yet.
     *
     * @param  non-empty-list<TransferFailed>  $failures
     * @return bool whether these are to be tried again; false goes back
     */
    public function failed(array $failures): bool;

    /**
     * Some addresses do not show what was sent; visitors have the new site.
     *
     * @param  list<PageProof>  $proofs  all that were fetched
     */
    public function proofFailed(array $proofs): AfterFailedProof;

    public function moved(string $subject, int $bytes): void;

    /**
     * The address of a file that was sent shows the same bytes.
     *
     * @param  string  $path  from where the paths of the run begin
     */
    public function shown(string $path): void;

    public function backedUp(Backup $backup): void;

    public function planned(Plan $plan): void;
}
