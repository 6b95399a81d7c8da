<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordKind;
use App\Plans\MakePlan;
use App\Record\Record;
use App\Storage\SiteLockNames;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use App\Work\Task;
use App\Work\Tasks;
use Cellarium\Core\Work\Claim;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Carries out one deployment, or takes up one that was broken off.
 *
 * @implements RecoversForgotten<Deployment>
 * @implements RecoversOrphans<Deployment>
 */
final readonly class CarryOutDeployment implements RecoversForgotten, RecoversOrphans, Task
{
    private const SECONDS_TO_WAIT = 2;

    public function __construct(private Runner $runner)
    {
    }

    public static function claim(int $row): ?Claim
    {
        return Runner::claim($row);
    }

    public function carryOut(int $row): ?int
    {
        $deployment = Deployment::find($row);
        if ($deployment === null) {
            return null;
        }
        if (! $this->runner->carryOut($deployment)) {
            return self::SECONDS_TO_WAIT;
        }
        // The server is not what the plan was made for.
        $deployment->refresh()->state === DeploymentState::Drafting && Tasks::order(MakePlan::class, $row);

        return null;
    }

    public function inHand(): Builder
    {
        return Deployment::with('site.account')->where('state', DeploymentState::Running);
    }

    public function locks(Model $row): array
    {
        return SiteLockNames::forSite($row->site);
    }

    public function settle(Model $row): bool
    {
        return self::queueAgain($row, DeploymentState::Running, DeploymentState::Queued);
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return Deployment::with('site.account')
            ->whereIn('state', [DeploymentState::Queued, DeploymentState::Waiting, DeploymentState::Unfinished])
            ->where('held', false)
            ->where('updated_at', '<=', $since);
    }

    public function takeUp(Model $row): bool
    {
        return self::queueAgain($row, $row->state, $row->state);
    }

    private static function queueAgain(Deployment $deployment, DeploymentState $from, DeploymentState $to): bool
    {
        // Queued again before the lock is let go, so that nobody else takes it for orphaned.
        $isQueued = Deployment::where(['id' => $deployment->id, 'state' => $from])
            ->update(['state' => $to, 'updated_at' => now()]) === 1;
        if (! $isQueued) {
            return false;
        }
        Tasks::order(self::class, $deployment->id);
        Record::write(
            RecordKind::DeploymentTakenUp,
            "{$deployment->site->domain}: the run was broken off and is taken up again",
            $deployment->site,
            ['deployment' => $deployment->id],
        );

        return true;
    }
}
