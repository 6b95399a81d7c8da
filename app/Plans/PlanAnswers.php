<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunFiles;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Illuminate\Support\Facades\DB;

/** Answers the questions of a plan, for this plan only; no server is asked. */
final readonly class PlanAnswers
{
    public function __construct(private RunFiles $files, private Ways $ways)
    {
    }

    /**
     * @param  string  $scope  as Answers has it
     *
     * @throws Problem when the plan was started meanwhile
     */
    public function answer(Deployment $deployment, string $scope, Choice $choice): void
    {
        DB::transaction(function () use ($deployment, $scope, $choice): void {
            $locked = Deployment::with('site', 'comparedWith')->lockForUpdate()->findOrFail($deployment->id);
            $draft = $locked->state === DeploymentState::Planned ? $this->files->draft($locked) : null;
            if ($draft === null) {
                throw new Problem('This plan was started already, or is being made anew. Nothing was changed.');
            }
            $answers = $locked->answers()->with($scope, $choice);
            $plan = Planner::plan(
                $draft->target(),
                $draft->live(),
                Policy::fromFields(new JsonFields($locked->policy)),
                $this->files->thirdSide($locked),
                $answers,
            );
            $this->files->keepDraft($locked, $plan);
            $this->ways->weigh($locked, $plan, false);
            $locked->update(['answers' => $answers->toArray(), 'counts' => $plan->counts()]);
            Record::write(
                RecordKind::PlanAnswered,
                "{$locked->title()} on {$locked->site->domain}: ".self::sentence($locked, $scope, $choice),
                $locked->site,
                ['deployment' => $locked->id],
            );
        });
    }

    /** @return list<PlanItem> what nobody has answered yet */
    public function open(Deployment $deployment): array
    {
        return $this->files->planReader($deployment)->search(new PlanFilter(Change::Asked), 0, PHP_INT_MAX)[0];
    }

    private static function sentence(Deployment $deployment, string $scope, Choice $choice): string
    {
        $what = match ($choice) {
            Choice::Theirs => 'what is on the server stays',
            Choice::Ours => $deployment->bringsBack() ? 'what was there before counts' : 'the package counts',
            Choice::Both => 'both are kept',
            Choice::Newer => 'the newer one counts',
        };

        return ($scope === Answers::ALL ? 'all that changed live' : $scope).": $what";
    }
}
