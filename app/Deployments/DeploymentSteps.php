<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\ProofBy;
use App\Plans\PlanTotals;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Words\Count;

/** The six stations of a deployment; each is filled only by its proof. */
final class DeploymentSteps
{
    /** @return list<array{name: string, state: DeploymentStepState, note: string}> */
    public static function forDeployment(Deployment $deployment, PlanTotals $totals): array
    {
        $site = $deployment->site;
        $sends = $totals->files(Change::Add, Change::Replace);
        $questions = $totals->files(Change::Asked);
        $state = $deployment->state;
        $stage = $deployment->stage;
        $running = in_array(
            $state,
            [DeploymentState::Running, DeploymentState::Queued, DeploymentState::Waiting],
            true,
        );
        $backedUp = $deployment->backup?->verified_at !== null;
        $proven = $state === DeploymentState::Proven;
        $broken = in_array(
            $state,
            [DeploymentState::PutBack, DeploymentState::PutBackUnproven, DeploymentState::Unfinished],
            true,
        );

        return [
            [
                'name' => $deployment->kind === DeploymentKind::Deploy ? 'Package' : 'Source',
                'state' => DeploymentStepState::Done,
                'note' => self::source($deployment),
            ],
            [
                'name' => 'Destination',
                'state' => $site->root_proven_at !== null ? DeploymentStepState::Done : DeploymentStepState::Open,
                'note' => $site->root_proven_at !== null ? 'root proven' : 'root not proven yet',
            ],
            [
                'name' => 'Plan',
                'state' => match (true) {
                    $state === DeploymentState::Planned => DeploymentStepState::Here,
                    $state === DeploymentState::Refused => DeploymentStepState::Failed,
                    default => DeploymentStepState::Done,
                },
                'note' => $questions > 0 ? self::questions($questions) : self::planNote($deployment, $broken),
            ],
            [
                'name' => 'Backup',
                'state' => match (true) {
                    $backedUp => DeploymentStepState::Done,
                    $running => DeploymentStepState::Here,
                    default => DeploymentStepState::Open,
                },
                'note' => match (true) {
                    $backedUp => Amount::files($deployment->backup->files).' read back',
                    $running => self::waiting($deployment),
                    default => 'before anything else',
                },
            ],
            [
                'name' => 'Replace',
                'state' => match (true) {
                    $broken => DeploymentStepState::Failed,
                    $proven || $stage === RunStage::Proving => DeploymentStepState::Done,
                    $backedUp && $running => DeploymentStepState::Here,
                    default => DeploymentStepState::Open,
                },
                'note' => match (true) {
                    $broken => self::brokenNote($state),
                    $proven => Amount::files($sends).' sent',
                    default => Amount::files($sends).self::by($deployment->way),
                },
            ],
            [
                'name' => 'Proof',
                'state' => match (true) {
                    $proven => DeploymentStepState::Done,
                    $stage === RunStage::Proving && $running => DeploymentStepState::Here,
                    default => DeploymentStepState::Open,
                },
                'note' => match (true) {
                    $proven && $deployment->wasReadBackOnly() => Amount::files($deployment->read_back).' read back',
                    $proven && $deployment->foundLive()?->but() !== null => 'live, and something to mend',
                    $proven => self::proofs(count($deployment->proofs ?? []), $deployment->addresses),
                    $deployment->provenBy() === ProofBy::ReadingBack => 'by reading back',
                    default => 'through the domain',
                },
            ],
        ];
    }

    private static function by(Way $way): string
    {
        return match ($way) {
            Way::FileByFile => ' to send',
            Way::Swap => ' change, by swapping',
            Way::Unpack => ' change, unpacked there',
        };
    }

    private static function source(Deployment $deployment): string
    {
        $findings = (string) $deployment->package?->findingsInWords();

        return match (true) {
            $deployment->kind === DeploymentKind::Files => 'brought by hand',
            $deployment->kind === DeploymentKind::RestoreFiles => 'set aside, held here',
            $deployment->kind !== DeploymentKind::Deploy => 'a backup, read back',
            $findings === '' => 'checked',
            default => "checked, $findings",
        };
    }

    private static function questions(int $questions): string
    {
        return Count::words($questions, 'question for you', 'questions for you');
    }

    private static function planNote(Deployment $deployment, bool $broken): string
    {
        return match (true) {
            $deployment->state === DeploymentState::Planned => 'waiting for you',
            $deployment->state === DeploymentState::Refused => 'refused',
            $deployment->state === DeploymentState::Proven => 'carried out as made',
            $broken => 'not carried out',
            default => 'being carried out',
        };
    }

    private static function waiting(Deployment $deployment): string
    {
        return match ($deployment->state) {
            DeploymentState::Queued => 'about to start',
            DeploymentState::Waiting => 'waits its turn',
            default => 'being taken',
        };
    }

    private static function brokenNote(DeploymentState $state): string
    {
        return match ($state) {
            DeploymentState::PutBack => 'failed and put back',
            DeploymentState::PutBackUnproven => 'put back, not proven',
            default => 'not yet put back',
        };
    }

    /** @param  int  $all  addresses that could have been fetched; 0 where that was not counted yet */
    private static function proofs(int $pages, int $all): string
    {
        return match (true) {
            $all > $pages => "$pages of $all addresses fetched",
            $pages === 1 => '1 address fetched',
            default => "$pages addresses fetched",
        };
    }
}
