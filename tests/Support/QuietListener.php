<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Backup\Backup;
use Cellarium\Core\Deployment\RunListener;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Plan;

final class QuietListener implements RunListener
{
    /** @var list<string> */
    public array $stages = [];

    public function stage(RunStage $stage, int $files, int $bytes): void
    {
        $this->stages[] = $stage->value;
    }

    public function moved(string $subject, int $bytes): void
    {
    }

    public function backedUp(Backup $backup): void
    {
    }

    public function planned(Plan $plan): void
    {
    }
}
