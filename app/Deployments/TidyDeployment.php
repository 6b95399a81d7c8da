<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Deployment;
use App\Queue\ForHost;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Lets go of the old tree of a proven swap, which could not be done at its end; tried until it is done. */
final class TidyDeployment implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(public readonly int $deployment)
    {
    }

    public function host(): ?string
    {
        return Deployment::with('site.account')->find($this->deployment)?->site->account->host;
    }

    public function handle(Runner $runner): void
    {
        $deployment = Deployment::with('site.account', 'ftpUser.account')->find($this->deployment);
        $deployment?->left_behind_at === null || $runner->tidy($deployment);
    }
}
