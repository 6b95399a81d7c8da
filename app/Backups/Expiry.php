<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Backup\HeldBackup;
use Cellarium\Core\Backup\RetentionDecision;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;

/** Keeps backups by the rule of each site, and lets go of the others. */
final readonly class Expiry
{
    /**
     * What becomes of the backups of a site, newest first.
     *
     * @param  BackupRule|null  $rule  to try instead of the one that holds
     * @return list<RetentionDecision>
     */
    public function decisions(Site $site, ?BackupRule $rule = null): array
    {
        return $this->decisionsFor(
            new Collection([$site]),
            new Collection([$rule ?? BackupRule::forSite($site)]),
        )[$site->id];
    }

    /**
     * The same of many sites, in as many queries.
     *
     * @param  Collection<int, Site>  $sites
     * @param  Collection<int, BackupRule>  $rules  all, or the one that is to hold
     * @return array<int, list<RetentionDecision>> by the numbers of the sites
     */
    public function decisionsFor(Collection $sites, Collection $rules): array
    {
        $numbers = $sites->modelKeys();
        $held = self::held()
            ->whereIn('site_id', $numbers)
            ->get(['id', 'site_id', 'root', 'reason', 'verified_at', 'created_at', 'pinned_at'])
            ->groupBy('site_id');
        $waysBack = $this->waysBack($numbers);
        $decisions = [];
        foreach ($sites as $site) {
            $retention = BackupRule::among($rules, $site)->retention();
            $decisions[$site->id] = [];
            // Of a directory that is mounted below a site, the only backup is an only one as well.
            $byRoot = ($held[$site->id] ?? new Collection)->groupBy(
                static fn (Backup $backup): string => (string) $backup->root,
            );
            foreach ($byRoot as $ofRoot) {
                array_push($decisions[$site->id], ...$retention->decide(
                    $ofRoot->map(static fn (Backup $backup): HeldBackup => new HeldBackup(
                        $backup->id,
                        $backup->verified_at ?? $backup->created_at,
                        $backup->pinned_at !== null,
                        isset($waysBack[$backup->id]),
                        $backup->reason->isOfSmallChange(),
                    ))->values()->all(),
                ));
            }
            usort(
                $decisions[$site->id],
                static fn (RetentionDecision $one, RetentionDecision $other): int => $other->backup->takenAt
                    <=> $one->backup->takenAt,
            );
        }

        return $decisions;
    }

    /** @return array<int, list<RetentionDecision>> what goes, by site */
    public function due(): array
    {
        $rules = self::rules();
        $due = [];
        Site::with('account.client', 'client')->chunkById(200, function ($sites) use ($rules, &$due): void {
            foreach ($this->decisionsFor($sites, $rules) as $number => $decisions) {
                $goes = array_values(
                    array_filter($decisions, static fn (RetentionDecision $decision): bool => ! $decision->isKept()),
                );
                $goes === [] || $due[$number] = $goes;
            }
        });

        return $due;
    }

    /** @return Collection<int, BackupRule> all of them, and the usual one */
    public static function rules(): Collection
    {
        return BackupRule::all()->push(BackupRule::usual());
    }

    /** @return list<string> names of backups on the shelf that go */
    public function namesDue(): array
    {
        $ids = array_map(
            static fn (RetentionDecision $decision): int => $decision->backup->id,
            array_merge(...array_values($this->due())),
        );

        return Backup::whereIn('id', $ids)->pluck('name')->all();
    }

    /**
     * @return int how many were let go of; their contents go with the next sweep, unless something else holds them
     *
     * @throws Problem with nothing let go of, where database and lists do not agree, or the clock leapt
     */
    public function carryOut(): int
    {
        Witnesses::mustAgree();
        ClockWatch::mustBeSteady();
        $gone = 0;
        foreach ($this->due() as $number => $decisions) {
            $site = Site::findOrFail($number);
            $ids = array_map(static fn (RetentionDecision $decision): int => $decision->backup->id, $decisions);
            // Pinned, or become a way back, while this was looked at: then it stays.
            $let = Backup::whereIn('id', array_diff($ids, array_keys($this->waysBack([$number]))))
                ->where('state', BackupState::Verified)
                ->whereNull('pinned_at')
                ->update(['state' => BackupState::Expired]);
            $gone += $let;
            $let === 0 || Record::write(
                RecordKind::BackupsExpired,
                "$let backups of $site->domain were let go of, as its rule says; the newest of them from "
                    .$decisions[0]->backup->takenAt->format('j M Y'),
                $site,
                ['backups' => $ids],
            );
        }

        return $gone;
    }

    /** @return Builder<Backup> */
    public static function held(): Builder
    {
        return Backup::where('state', BackupState::Verified)->whereNotNull('name');
    }

    /**
     * Of each run for thirty days, whatever came after it and whatever the rule counts, and of the last one for as long
     * as it is the last.
     *
     * @param  list<int>  $sites
     * @return array<int, true> numbers of backups that something which may yet be taken back needs
     */
    private function waysBack(array $sites): array
    {
        $deployments = Deployment::whereIn('site_id', $sites)
            ->where(static fn ($query) => $query
                ->whereIn('state', DeploymentState::OPEN)
                ->orWhere(static fn ($query) => $query
                    ->where('state', DeploymentState::Proven)
                    ->where('ended_at', '>', now()->subDays((int) config('cellarium.way_back_days'))))
                ->orWhereIn('id', Site::whereIn('id', $sites)->select('last_deployment_id')));
        $ids = [];
        foreach ($deployments->get(['backup_id', 'from_backup_id', 'state']) as $deployment) {
            $ids[] = $deployment->backup_id;
            $deployment->state->isOver() || $ids[] = $deployment->from_backup_id;
        }

        return array_fill_keys(array_filter($ids), true);
    }
}
