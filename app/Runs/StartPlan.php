<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunFiles;
use App\Work\Tasks;
use Cellarium\Core\Plan\Change;

/** Ends the waiting of a plan: it is carried out once its questions are answered, made anew, or discarded. */
final class StartPlan
{
    /** @return bool false where it is no plan that waits for its start, or not every question is answered */
    public static function start(Deployment $deployment, Person $person): bool
    {
        if (app(RunFiles::class)->folder($deployment) !== null) {
            return false;
        }
        $started = Deployment::where('id', $deployment->id)
            ->where('state', DeploymentState::Planned)
            ->where('counts->'.Change::Asked->value.'->files', 0)
            ->update([
                'state' => DeploymentState::Queued,
                'person_id' => $person->id,
                'changes_since' => null,
            ]);
        if ($started === 0) {
            return false;
        }
        $deployment->load('site.account', 'package', 'fromBackup', 'undoes.package');
        Record::write(
            RecordKind::DeploymentStarted,
            "{$deployment->title()} started on {$deployment->site->domain}",
            $deployment->site,
            ['deployment' => $deployment->id],
        );
        RunAhead::note($deployment);
        Tasks::order(CarryOutDeployment::class, $deployment->id);

        return true;
    }

    /** @return bool false where it is no plan that waits any more */
    public static function discard(Deployment $plan): bool
    {
        $gone = Deployment::where('id', $plan->id)
            ->whereIn('state', [DeploymentState::Planned, DeploymentState::NotPlanned])
            ->update(['state' => DeploymentState::Cancelled, 'ended_at' => now()]) === 1;
        $gone && Record::write(
            RecordKind::DeploymentCancelled,
            "Plan discarded: {$plan->title()} on {$plan->site->domain}",
            $plan->site,
            ['deployment' => $plan->id],
        );

        return $gone;
    }

    /** @return bool whether the plan is to be made anew */
    public static function again(Deployment $plan): bool
    {
        return Deployment::where('id', $plan->id)
            ->whereIn('state', [DeploymentState::Planned, DeploymentState::NotPlanned])
            ->update([
                'state' => DeploymentState::Drafting,
                'question' => null,
                'trouble' => null,
                'started_at' => null,
            ]) === 1;
    }
}
