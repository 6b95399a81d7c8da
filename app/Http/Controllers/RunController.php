<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Deployment\RunStage;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

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

        return $this->told($deployment, $paused, RecordKind::DeploymentPaused, 'paused');
    }

    public function goOn(Deployment $deployment): RedirectResponse
    {
        $going = Deployment::where('id', $deployment->id)->whereNotNull('paused_at')->update(['paused_at' => null]);

        return $this->told($deployment, $going, RecordKind::DeploymentContinued, 'goes on');
    }

    /** With "mend", modes that keep the web server out are set before. */
    public function retry(Request $request, Deployment $deployment): RedirectResponse
    {
        $mends = $request->boolean('mend');
        $retried = Deployment::where('id', $deployment->id)
            ->whereNotNull('decide_until')
            ->where('tries_again', false)
            ->update(['tries_again' => true, 'mends' => $mends]);

        return $this->told(
            $deployment,
            $retried,
            RecordKind::DeploymentContinued,
            match (true) {
                $mends => 'sets the modes that keep the web server out, and proves again',
                $deployment->stage === RunStage::Proving => 'proves again',
                default => 'sends again what could not be sent',
            },
        );
    }

    private function told(Deployment $deployment, int $changed, RecordKind $kind, string $words): RedirectResponse
    {
        $deployment->load('site.account', 'package', 'fromBackup', 'undoes.package');
        $changed === 0 || Record::write(
            $kind,
            "{$deployment->title()} on {$deployment->site->domain}: $words",
            $deployment->site,
            ['deployment' => $deployment->id],
        );

        return redirect("/deployments/$deployment->id");
    }
}
