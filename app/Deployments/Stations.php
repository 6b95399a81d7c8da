<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Deployment;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Plan;

/** The six stations of a deployment; each is filled only by its proof. */
final class Stations
{
    private const DONE = 'done';

    private const HERE = 'here';

    private const OPEN = 'open';

    private const FAILED = 'failed';

    /** @return list<array{name: string, state: string, note: string}> */
    public static function of(Deployment $deployment, Plan $plan): array
    {
        $site = $deployment->site;
        $counts = $plan->counts();
        $sends = $counts['added']['files'] + $counts['replaced']['files'];
        $state = $deployment->state;
        $stage = RunStage::tryFrom((string) $deployment->stage);
        $running = in_array($state, [Deployment::RUNNING, Deployment::QUEUED, Deployment::WAITING], true);
        $backedUp = $deployment->backup?->verified_at !== null;
        $proven = $state === Deployment::PROVEN;
        $broken = in_array($state, [Deployment::PUT_BACK, Deployment::PUT_BACK_UNPROVEN, Deployment::UNFINISHED], true);

        return [
            [
                'name' => $deployment->kind === Deployment::DEPLOY ? 'Package' : 'Source',
                'state' => self::DONE,
                'note' => self::source($deployment),
            ],
            [
                'name' => 'Destination',
                'state' => $site->root_proven_at !== null ? self::DONE : self::OPEN,
                'note' => $site->root_proven_at !== null ? 'root proven' : 'root not proven yet',
            ],
            [
                'name' => 'Plan',
                'state' => match (true) {
                    $state === Deployment::PLANNED => self::HERE,
                    $state === Deployment::REFUSED && ! $backedUp => self::FAILED,
                    default => self::DONE,
                },
                'note' => self::planNote($deployment, $broken),
            ],
            [
                'name' => 'Backup',
                'state' => match (true) {
                    $backedUp => self::DONE,
                    $running => self::HERE,
                    default => self::OPEN,
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
                    $proven || $stage === RunStage::Proving => self::DONE,
                    $broken => self::FAILED,
                    $backedUp && $running => self::HERE,
                    default => self::OPEN,
                },
                'note' => match (true) {
                    $broken => self::brokenNote($state),
                    $proven => Amount::files($sends).' sent',
                    default => Amount::files($sends).' to send',
                },
            ],
            [
                'name' => 'Proof',
                'state' => match (true) {
                    $proven => self::DONE,
                    $stage === RunStage::Proving => self::HERE,
                    default => self::OPEN,
                },
                'note' => $proven
                    ? self::proofs(count($deployment->proofs ?? []), $deployment->addresses)
                    : 'through the domain',
            ],
        ];
    }

    private static function source(Deployment $deployment): string
    {
        $notes = count($deployment->package->findings ?? []);

        return match (true) {
            $deployment->kind === Deployment::RESTORE => 'set aside, held here',
            $deployment->kind !== Deployment::DEPLOY => 'a backup, read back',
            $notes === 0 => 'checked',
            default => "checked, $notes ".($notes === 1 ? 'note' : 'notes'),
        };
    }

    private static function planNote(Deployment $deployment, bool $broken): string
    {
        return match (true) {
            $deployment->state === Deployment::PLANNED => 'waiting for you',
            $deployment->state === Deployment::REFUSED => 'refused',
            $deployment->state === Deployment::PROVEN => 'carried out as made',
            $broken => 'not carried out',
            default => 'being carried out',
        };
    }

    private static function waiting(Deployment $deployment): string
    {
        return match ($deployment->state) {
            Deployment::QUEUED => 'about to start',
            Deployment::WAITING => 'waits its turn',
            default => 'being taken',
        };
    }

    private static function brokenNote(string $state): string
    {
        return match ($state) {
            Deployment::PUT_BACK => 'failed and put back',
            Deployment::PUT_BACK_UNPROVEN => 'put back, not proven',
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
