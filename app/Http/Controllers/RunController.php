<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Deployment\RunStage;
use Illuminate\Http\RedirectResponse;

/** A run that is going on: pause it, go on, send again what could not be sent. */
final class RunController
{
    public function pause(Deployment $deployment): RedirectResponse
    {
        $paused = Deployment::where(['id' => $deployment->id, 'state' => DeploymentState::Running])
            ->whereIn('stage', array_filter(
                RunStage::cases(),
                static fn (RunStage $stage): bool => $stage->isUntouched(),
            ))
            ->whereNull('paused_at')
            ->update(['paused_at' => now()]);

        return $this->told(
            $deployment,
            $paused,
            RecordKind::DeploymentPaused,
            'paused',
        );
    }

    public function goOn(Deployment $deployment): RedirectResponse
    {
        $going = Deployment::where('id', $deployment->id)->whereNotNull('paused_at')->update(['paused_at' => null]);

        return $this->told(
            $deployment,
            $going,
            RecordKind::DeploymentContinued,
            'goes on',
        );
    }

    public function retry(Deployment $deployment): RedirectResponse
    {
        $retried = Deployment::where('id', $deployment->id)
            ->whereNotNull('decide_until')
            ->where('tries_again', false)
            ->update(['tries_again' => true]);

        return $this->told(
            $deployment,
            $retried,
            RecordKind::DeploymentContinued,
            'sends again what could not be sent',
        );
    }

    private function told(
        Deployment $deployment,
        int $changed,
        RecordKind $kind,
        string $words,
    ): RedirectResponse {
        $deployment->load(
            'site.account',
            'package',
            'fromBackup',
            'undoes.package',
        );
        $changed === 0 || Record::write(
            $kind,
            "{$deployment->title()} on {$deployment->site->domain}: $words",
            $deployment->site,
            ['deployment' => $deployment->id],
        );

        return redirect("/deployments/$deployment->id");
    }
}
