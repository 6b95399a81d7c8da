<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunFiles;
use Cellarium\Core\Plan\Change;

/** Has a plan carried out whose questions are answered, once and by whoever comes first. */
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
        $deployment->load(
            'site.account',
            'package',
            'fromBackup',
            'undoes.package',
        );
        Record::write(
            RecordKind::DeploymentStarted,
            "{$deployment->title()} started on {$deployment->site->domain}",
            $deployment->site,
            ['deployment' => $deployment->id],
        );
        CarryOutDeployment::dispatch($deployment->id);

        return true;
    }
}
