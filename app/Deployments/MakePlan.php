<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Queue\ForHost;
use Cellarium\Core\Storage\Locks;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Looks at a server and makes the plan of one deployment in a queue worker, while a page watches.
 *
 * One look at a host at a time: a host that never comes to an end keeps one worker busy and no more.
 */
final class MakePlan implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    private const SECONDS_TO_WAIT = 2;

    public function __construct(public readonly int $deployment)
    {
        $this->onQueue('looks');
    }

    public function host(): ?string
    {
        return Deployment::with('site.account')->find($this->deployment)?->site->account->host;
    }

    public function handle(PlanMaker $plans, Locks $locks): void
    {
        $deployment = Deployment::with(
            'site.account.client',
            'site.account.sites',
            'package',
            'ftpUser.account.sites',
            'fromBackup',
            'undoes.backup',
        )->find($this->deployment);
        if ($deployment === null || $deployment->state !== DeploymentState::Drafting) {
            return;
        }
        $own = $locks->acquire(self::lockName($deployment->id));
        if ($own === null) {
            return; // Another worker makes it just now.
        }
        $look = $locks->acquire('look|'.strtolower($deployment->site->account->host));
        if ($look === null) {
            $own->release();
            self::dispatch($this->deployment)->delay(self::SECONDS_TO_WAIT);

            return;
        }
        try {
            $deployment->update(['started_at' => now()]);
            $plans->make($deployment);
        } catch (\Throwable $failure) {
            // How it ended is written down with the deployment, and shown there.
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
        } finally {
            $look->release();
            $own->release();
        }
    }

    public static function lockName(int $deployment): string
    {
        return "plan-$deployment";
    }
}
