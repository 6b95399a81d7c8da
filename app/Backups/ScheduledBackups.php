<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\Site;
use App\Work\Tasks;
use Carbon\CarbonImmutable;
use Cellarium\Core\Work\Urgency;
use DateTimeImmutable;
use Illuminate\Support\Collection;
use Psr\Clock\ClockInterface;

/** Begins the backups that are due, as the promise of each site says. */
final readonly class ScheduledBackups
{
    /** Minutes after one that failed in which none is begun by itself. */
    private const AGAIN_MINUTES = 60;

    public function __construct(private ClockInterface $clock)
    {
    }

    /** @return list<Site> whose backups were begun */
    public function begin(): array
    {
        $begun = [];
        $barred = $this->barred();
        foreach ($this->due() as [$site, $due]) {
            $since = $barred->get($site->id);
            // A question is answered by any backup that came after it.
            $isAnswered = $since !== null && $site->last_backup_at !== null && $site->last_backup_at > $since;
            if ($due > $this->clock->now() || ($since !== null && ! $isAnswered)) {
                continue;
            }
            $backup = Backup::create([
                'site_id' => $site->id,
                'reason' => BackupReason::Scheduled,
                'state' => BackupState::Taking,
            ]);
            Tasks::order(TakeBackup::class, $backup->id, urgency: Urgency::Backup);
            $begun[] = $site;
        }

        return $begun;
    }

    /**
     * When each site is due, the sites of a host one after the other within their quiet hours.
     *
     * @return list<array{Site, DateTimeImmutable}>
     */
    public function due(): array
    {
        $rules = BackupRule::all();
        $sites = Site::with('account.client', 'client')
            ->where(static fn ($query) => $query->whereNull('placeholder')->orWhere('placeholder', false))
            ->orderBy('id')
            ->get();
        $due = [];
        foreach ($sites->groupBy(static fn (Site $site): string => $site->account->host) as $ofHost) {
            foreach ($ofHost->values() as $rank => $site) {
                $due[] = [$site, BackupRule::among($rules, $site)->kept()->due(
                    $site->last_backup_at,
                    $this->clock->now(),
                    $rank / $ofHost->count(),
                )];
            }
        }

        return $due;
    }

    /** @return Collection<int, CarbonImmutable> since when, by site: at work, waiting for an answer, or just failed */
    private function barred(): Collection
    {
        return Backup::whereIn('state', [BackupState::Taking, BackupState::Question])
            ->orWhere(static fn ($query) => $query
                ->whereIn('state', [BackupState::Failed, BackupState::Cancelled])
                ->where('created_at', '>', now()->subMinutes(self::AGAIN_MINUTES)))
            ->groupBy('site_id')
            ->selectRaw('site_id, MAX(created_at) AS since')
            ->pluck('since', 'site_id')
            ->map(static fn (string $since): CarbonImmutable => CarbonImmutable::parse($since));
    }
}
