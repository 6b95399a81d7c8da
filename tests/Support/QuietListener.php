<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Backup\Backup;
use Cellarium\Core\Deployment\AfterFailedProof;
use Cellarium\Core\Deployment\RunListener;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Transfer\TransferFailed;

final class QuietListener implements RunListener
{
    /** @var list<string> */
    public array $stages = [];

    public function stage(RunStage $stage, int $files, int $bytes): void
    {
        $this->stages[] = $stage->value;
    }

    /** @var list<bool> what is answered where files could not be sent; false once there is no more */
    public array $again = [];

    /** @var list<list<string>> what could not be sent, each time it was asked about */
    public array $failed = [];

    public function failed(array $failures): bool
    {
        $this->failed[] = array_map(static fn (TransferFailed $failed): string => $failed->job->subject, $failures);

        return array_shift($this->again) ?? false;
    }

    /** @var list<AfterFailedProof> what is answered where a proof fails; going back once there is no more */
    public array $afterFailedProof = [];

    public function proofFailed(array $proofs): AfterFailedProof
    {
        return array_shift($this->afterFailedProof) ?? AfterFailedProof::GoBack;
    }

    public function moved(string $subject, int $bytes): void
    {
    }

    /** @var list<string> paths whose addresses showed the same bytes */
    public array $shown = [];

    public function shown(string $path): void
    {
        $this->shown[] = $path;
    }

    public function backedUp(Backup $backup): void
    {
    }

    public function planned(Plan $plan): void
    {
    }
}
