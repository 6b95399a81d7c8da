<?php

declare(strict_types=1);

namespace App\Sites;

use App\Models\Backup;
use App\Models\BackupState;
use App\Models\ChangeByHand;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\Proof;
use App\Models\SamePlace;
use App\Models\Site;
use App\Models\SiteHome;
use App\Text\Amount;
use Carbon\CarbonImmutable;
use Cellarium\Core\Timeline\Lane;
use Cellarium\Core\Timeline\TimelineEvent;

/** Events of a site, from everything that is written down of it. */
final readonly class SiteEvents
{
    /** What is drawn at the most; of more, the newest. */
    private const MOST = 5_000;

    private CarbonImmutable $from;

    private CarbonImmutable $until;

    /** @var non-empty-list<int> numbers of the sites that are at this place, mostly one */
    private array $sites;

    public function __construct(private Site $site, CarbonImmutable $from, CarbonImmutable $until)
    {
        // In the zone of the application, as all moments are stored.
        $this->from = $from->setTimezone((string) config('app.timezone'));
        $this->until = $until->setTimezone((string) config('app.timezone'));
        $this->sites = SamePlace::ofSite($site)->sites;
    }

    /** @return list<TimelineEvent> */
    public function all(): array
    {
        return [
            ...$this->live(),
            ...$this->backups(),
            ...$this->byHand(),
            ...$this->signIns(),
            ...$this->failed(),
        ];
    }

    /** @return list<TimelineEvent> each version until the next one */
    private function live(): array
    {
        $proven = Deployment::with(Deployment::titled())
            ->whereIn('site_id', $this->sites)
            ->where('state', DeploymentState::Proven)
            ->whereNotNull('ended_at');
        $before = (clone $proven)->where('ended_at', '<', $this->from)->latest('ended_at')->first();
        $within = $proven->whereBetween('ended_at', [$this->from, $this->until])->oldest('ended_at')->limit(self::MOST);
        $runs = [...$before === null ? [] : [$before], ...$within->get()];
        $events = [];
        foreach ($runs as $index => $run) {
            $events[] = new TimelineEvent(
                Lane::Live,
                (int) $run->ended_at?->getTimestamp(),
                (int) (isset($runs[$index + 1]) ? $runs[$index + 1]->ended_at : $this->until)?->getTimestamp(),
                $run->title().($run->wasReadBackOnly() ? ', read back only' : ''),
                $run->backup_id === null ? 'live' : 'way_back',
                page: "/deployments/$run->id",
            );
        }

        return $events;
    }

    /** @return list<TimelineEvent> and what each found changed by nobody here */
    private function backups(): array
    {
        $events = [];
        $backups = Backup::where('site_id', $this->site->id)
            ->whereIn('state', [BackupState::Verified, BackupState::Expired, BackupState::Failed])
            ->whereBetween('created_at', [$this->from, $this->until])
            ->latest('id')
            ->limit(self::MOST)
            ->get();
        foreach ($backups as $backup) {
            [$kind, $weight, $words] = self::ofBackup($backup);
            $at = $backup->verified_at ?? $backup->created_at;
            $events[] = new TimelineEvent(
                Lane::Backups,
                $at->getTimestamp(),
                null,
                "backup $backup->id, {$backup->why()}$words",
                $kind,
                $weight,
                $backup->state === BackupState::Verified ? "/backups/$backup->id" : "/backups?site=$backup->site_id",
            );
            if ($backup->drift !== null) {
                $events[] = $this->drifted($backup);
            }
        }

        return $events;
    }

    /** @return array{string, int, string} kind, weight and words */
    private static function ofBackup(Backup $backup): array
    {
        return match (true) {
            $backup->state === BackupState::Failed => ['failed', 5, ': failed'],
            isset($backup->rehearsal['trouble']) => ['failed', 5, ': could not be rehearsed'],
            $backup->pinned_at !== null => ['pinned', 3, ", pinned: $backup->pinned_because"],
            $backup->rehearsed_at !== null => ['rehearsed', 2, ', rehearsed'],
            $backup->state === BackupState::Expired => ['gone', 0, ', let go of since'],
            default => ['taken', 1, ", {$backup->holds()}"],
        };
    }

    private function drifted(Backup $backup): TimelineEvent
    {
        $drift = $backup->drift;
        $files = array_sum($drift['counts']);
        $words = [];
        foreach ($drift['counts'] as $kind => $count) {
            $words[] = "$count $kind";
        }
        $found = ($backup->verified_at ?? $backup->created_at)->getTimestamp();
        $between = 'between '.CarbonImmutable::createFromTimestamp($drift['since'])->shown('j M H:i').' and '
            .CarbonImmutable::createFromTimestamp($found)->shown('j M H:i');

        // The server's own time of the newest file, where it lies between the two looks.
        return new TimelineEvent(
            Lane::ByNobody,
            max($drift['since'], min($found, $drift['newest'] ?? $found)),
            null,
            Amount::files($files)." changed by nobody here $between: ".implode(', ', $words).', as '
                .implode(', ', array_slice(array_keys($drift['files']), 0, 3)),
            'drift',
            4,
            "/backups/$backup->id",
        );
    }

    /** @return list<TimelineEvent> */
    private function byHand(): array
    {
        return ChangeByHand::with('person')
            ->whereIn('site_id', $this->sites)
            ->whereBetween('ended_at', [$this->from, $this->until])
            ->where('done', '>', 0)
            ->latest('id')
            ->limit(self::MOST)
            ->get()
            ->map(static fn (ChangeByHand $change): TimelineEvent => new TimelineEvent(
                Lane::ByHand,
                (int) $change->ended_at?->getTimestamp(),
                null,
                $change->title.', '.($change->person?->shortName() ?? 'the console'),
                'by_hand',
                page: "/file-changes/$change->id",
            ))
            ->all();
    }

    /** @return list<TimelineEvent> the accounts that it was in, and each FTP user that reached it there */
    private function signIns(): array
    {
        $events = [];
        foreach ($this->site->homes() as $home) {
            $home->isWithin($this->from, $this->until) && array_push($events, ...$this->signInsOf($home));
        }

        return $events;
    }

    /** @return list<TimelineEvent> */
    private function signInsOf(SiteHome $home): array
    {
        $since = max(0, (int) $home->since?->getTimestamp());
        $until = min($this->until->getTimestamp(), $home->until?->getTimestamp() ?? PHP_INT_MAX);
        $account = $home->account;
        $events = [new TimelineEvent(
            Lane::SignIn,
            max($since, $account->created_at->getTimestamp()),
            $until,
            "$account->login, the account".($home->until === null ? '' : ' then'),
            'account',
            page: "/accounts/$account->id",
        )];
        $users = FtpUser::openWithin($this->from, $this->until)
            ->where('account_id', $account->id)
            ->oldest('id')
            ->limit(self::MOST)
            ->get();
        foreach ($users as $user) {
            if (! $home->wasReachedBy($user, $this->from, $this->until)) {
                continue;
            }
            $isProven = $user->reach_proven_at !== null
                && ($user->closed_at === null || $user->refusal_proven_at !== null);
            $events[] = new TimelineEvent(
                Lane::SignIn,
                max($since, $user->created_at->getTimestamp()),
                min($until, $user->closed_at?->getTimestamp() ?? $until),
                $user->login.($user->closed_at === null ? '' : ', closed').($isProven ? ', proven' : ', not proven'),
                $isProven ? 'user' : 'unproven',
                page: "/ftp-users/$user->id",
            );
        }

        return $events;
    }

    /** @return list<TimelineEvent> runs that did not come to their proof, and what was asked by itself and not shown */
    private function failed(): array
    {
        $alone = $this->site->proofs()
            ->where('ok', false)
            ->whereBetween('made_at', [$this->from, $this->until])
            ->latest('id')
            ->limit(self::MOST)
            ->get()
            ->map(fn (Proof $proof): TimelineEvent => new TimelineEvent(
                Lane::FailedProofs,
                (int) $proof->made_at->getTimestamp(),
                null,
                $proof->sentence,
                'failed',
                page: "/sites/{$this->site->id}#proven",
            ))
            ->all();

        return [...$this->failedRuns(), ...$alone];
    }

    /** @return list<TimelineEvent> */
    private function failedRuns(): array
    {
        return Deployment::with(Deployment::titled())
            ->whereIn('site_id', $this->sites)
            ->whereIn('state', [
                DeploymentState::PutBack,
                DeploymentState::PutBackUnproven,
                DeploymentState::Unfinished,
            ])
            ->whereBetween('ended_at', [$this->from, $this->until])
            ->latest('id')
            ->limit(self::MOST)
            ->get()
            ->map(static fn (Deployment $run): TimelineEvent => new TimelineEvent(
                Lane::FailedProofs,
                (int) $run->ended_at?->getTimestamp(),
                null,
                $run->title().': '.$run->state->label(),
                'failed',
                page: "/deployments/$run->id",
            ))
            ->all();
    }
}
