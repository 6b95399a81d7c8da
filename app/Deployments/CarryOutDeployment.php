<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Queue\ForHost;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Carries out one deployment in a queue worker; holds its number and nothing else. */
final class CarryOutDeployment implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    private const SECONDS_TO_WAIT = 2;

    public function __construct(public readonly int $deployment)
    {
    }

    public function host(): ?string
    {
        return Deployment::with('site.account')->find($this->deployment)?->site->account->host;
    }

    public function handle(Runner $runner): void
    {
        $deployment = Deployment::find($this->deployment);
        if ($deployment === null) {
            return;
        }
        if (! $runner->carryOut($deployment)) {
            // A new job and not a release of this one: waiting is not a failed attempt.
            self::dispatch($this->deployment)->delay(self::SECONDS_TO_WAIT);
        } elseif ($deployment->refresh()->state === DeploymentState::Drafting) {
            MakePlan::dispatch($this->deployment); // The server is not what the plan was made for.
        }
    }
}
