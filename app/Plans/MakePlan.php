<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use App\Work\Task;
use App\Work\Tasks;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Looks at a server and makes the plan of one deployment, while a page watches.
 *
 * One look at a host at a time: a host that never comes to an end keeps one worker busy and no more.
 *
 * @implements RecoversForgotten<Deployment>
 * @implements RecoversOrphans<Deployment>
 */
final readonly class MakePlan implements RecoversForgotten, RecoversOrphans, Task
{
    private const SECONDS_TO_WAIT = 2;

    public function __construct(private PlanMaker $plans, private Locks $locks)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $host = Deployment::with('site.account')->find($row)?->site->account->host;

        return $host === null ? null : new Claim(Urgency::Look, $host, self::lookAt($host));
    }

    public function carryOut(int $row): ?int
    {
        $deployment = Deployment::with(
            'site.account.client',
            'site.account.sites',
            'package',
            'ftpUser.account.sites',
            'fromBackup',
            'undoes.backup',
        )->find($row);
        if ($deployment === null || $deployment->state !== DeploymentState::Drafting) {
            return null;
        }
        $own = $this->locks->acquire(self::lockName($deployment->id));
        if ($own === null) {
            return null; // Another worker makes it just now.
        }
        $look = $this->locks->acquire(self::lookAt($deployment->site->account->host));
        if ($look === null) {
            $own->release();

            return self::SECONDS_TO_WAIT;
        }
        try {
            $deployment->update(['started_at' => now()]);
            $this->plans->make($deployment);
        } catch (\Throwable $failure) {
            // How it ended is written down with the deployment, and shown there.
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
        } finally {
            $look->release();
            $own->release();
        }

        return null;
    }

    public function inHand(): Builder
    {
        return Deployment::where('state', DeploymentState::Drafting)->whereNotNull('started_at');
    }

    public function locks(Model $row): array
    {
        return [self::lockName($row->id)];
    }

    public function settle(Model $row): bool
    {
        $isFree = Deployment::where(['id' => $row->id, 'state' => DeploymentState::Drafting])
            ->whereNotNull('started_at')
            ->update(['started_at' => null]) === 1;
        $isFree && Tasks::order(self::class, $row->id);

        return $isFree;
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return Deployment::where('state', DeploymentState::Drafting)
            ->whereNull('started_at')
            ->where('updated_at', '<=', $since);
    }

    public function takeUp(Model $row): bool
    {
        $row->touch();
        Tasks::order(self::class, $row->id);

        return false;
    }

    public static function lockName(int $deployment): string
    {
        return "plan-$deployment";
    }

    private static function lookAt(string $host): string
    {
        return 'look|'.strtolower($host);
    }
}
