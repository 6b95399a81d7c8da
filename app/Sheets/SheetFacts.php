<?php

declare(strict_types=1);

namespace App\Sheets;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\Person;
use App\Models\Site;
use App\Models\SiteHome;
use Carbon\CarbonImmutable;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Sheet\ClientSheet;
use Cellarium\Core\Sheet\SheetAccess;
use Cellarium\Core\Sheet\SheetBackup;
use Cellarium\Core\Sheet\SheetChange;
use Cellarium\Core\Sheet\SheetCover;
use Cellarium\Core\Sheet\SheetKind;
use Cellarium\Core\Sheet\SheetProof;
use Cellarium\Core\Sheet\SheetSite;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** The facts of a sheet, from everything that is written down: of one deployment, or of sites of a client in a time. */
final readonly class SheetFacts
{
    /** Of each kind; a sheet of more is none that anybody reads, and says so instead of leaving something out. */
    private const MOST = 2000;

    private CarbonImmutable $from;

    private CarbonImmutable $until;

    /** @param  Collection<int, Site>  $sites */
    private function __construct(
        private Client $client,
        private Collection $sites,
        private SheetCover $cover,
    ) {
        // In the zone of the application, as all moments are stored.
        $zone = (string) config('app.timezone');
        $this->from = CarbonImmutable::createFromTimestamp($cover->from, $zone);
        $this->until = CarbonImmutable::createFromTimestamp($cover->until, $zone);
    }

    /** @throws Problem when there is nothing to tell yet */
    public static function ofDeployment(Deployment $deployment, string $zone): ClientSheet
    {
        [$from, $until] = [$deployment->started_at, $deployment->ended_at];
        if ($from === null || $until === null || $deployment->isGoing()) {
            throw new Problem('A sheet tells how a deployment ended. Make it once this one has.');
        }
        $cover = new SheetCover($from->getTimestamp(), $until->getTimestamp(), $zone, $deployment->id);
        $facts = new self($deployment->site->owner(), collect([$deployment->site]), $cover);

        return $facts->sheet([self::ofRun($deployment)]);
    }

    /**
     * @param  Collection<int, Site>  $sites  of the client
     *
     * @throws Problem when it would be too long
     */
    public static function forClient(Client $client, Collection $sites, SheetCover $cover): ClientSheet
    {
        $facts = new self($client, $sites, $cover);
        $changes = [...$facts->deployments(), ...$facts->byHand(), ...$facts->drift()];
        usort($changes, static fn (SheetChange $one, SheetChange $other): int => $one->at <=> $other->at);

        return $facts->sheet($changes);
    }

    /** @param  list<SheetChange>  $changes */
    private function sheet(array $changes): ClientSheet
    {
        /** @var object{number: int, seal: string}|null $end */
        $end = DB::table('record_ends')->first();

        return new ClientSheet(
            Sheets::agency(),
            Sheets::colour(),
            $this->client->name,
            $this->cover,
            Person::viewer()->name ?? 'Cellarium',
            now()->getTimestamp(),
            (int) ($end->number ?? 0),
            (string) ($end->seal ?? ''),
            $this->sites(),
            $changes,
            $this->access(),
        );
    }

    /** @return list<SheetChange> */
    private function deployments(): array
    {
        $runs = Deployment::with([...Deployment::titled(), 'site', 'person', 'backup'])
            ->whereIn('site_id', $this->sites->pluck('id'))
            ->whereIn('state', [
                DeploymentState::Proven,
                DeploymentState::PutBack,
                DeploymentState::PutBackUnproven,
                DeploymentState::Unfinished,
            ])
            ->whereBetween('ended_at', [$this->from, $this->until])
            ->oldest('ended_at')
            ->limit(self::MOST + 1)
            ->get();

        return array_map(self::ofRun(...), $this->all($runs));
    }

    private static function ofRun(Deployment $run): SheetChange
    {
        $files = static fn (Change $change): int => (int) ($run->counts[$change->value]['files'] ?? 0);

        return new SheetChange(
            (int) $run->ended_at?->getTimestamp(),
            $run->site->domain,
            $run->bringsBack() ? SheetKind::BroughtBack : SheetKind::Deployed,
            $run->title(),
            $run->person->name ?? 'Cellarium',
            $run->label(),
            $run->state === DeploymentState::Proven,
            $files(Change::Add),
            $files(Change::Replace),
            $files(Change::SetAside),
            self::backupOf($run->backup),
            self::proofOf($run),
            $run->outage(),
        );
    }

    private static function proofOf(Deployment $run): ?SheetProof
    {
        $proofs = $run->proofs ?? [];

        return $proofs === [] && $run->read_back === 0 ? null : new SheetProof(
            max($run->addresses, count($proofs)),
            count($proofs),
            count(array_filter(
                $proofs,
                static fn (array $proof): bool => PageProof::fromFields(new JsonFields($proof))->holds(),
            )),
            $run->read_back,
        );
    }

    private static function backupOf(?Backup $backup): ?SheetBackup
    {
        return $backup?->verified_at === null ? null : new SheetBackup(
            $backup->id,
            $backup->files,
            (int) $backup->bytes,
            $backup->verified_at->getTimestamp(),
            isset($backup->rehearsal['trouble']) ? null : $backup->rehearsed_at?->getTimestamp(),
        );
    }

    /** @return list<SheetChange> */
    private function byHand(): array
    {
        $changes = ChangeByHand::with(['site', 'person'])
            ->whereIn('site_id', $this->sites->pluck('id'))
            ->whereBetween('ended_at', [$this->from, $this->until])
            ->where('done', '>', 0)
            ->oldest('ended_at')
            ->limit(self::MOST + 1)
            ->get();

        return array_map(static fn (ChangeByHand $change): SheetChange => new SheetChange(
            (int) $change->ended_at?->getTimestamp(),
            $change->site->domain,
            SheetKind::ByHand,
            $change->title,
            $change->person->name ?? 'Cellarium',
            $change->state->label().($change->undone_at === null ? '' : ', undone since'),
            $change->state === ChangeState::Done,
            0,
            $change->done,
            0,
        ), $this->all($changes));
    }

    /** @return list<SheetChange> what backups found that nobody here had done */
    private function drift(): array
    {
        $backups = Backup::with('site')
            ->whereIn('site_id', $this->sites->pluck('id'))
            ->whereNotNull('drift')
            ->whereBetween('verified_at', [$this->from, $this->until])
            ->oldest('verified_at')
            ->limit(self::MOST + 1)
            ->get();

        return array_map(static fn (Backup $backup): SheetChange => new SheetChange(
            (int) $backup->verified_at?->getTimestamp(),
            $backup->site->domain,
            SheetKind::ByNobodyHere,
            'Changed between '.self::moment($backup->drift['since'] ?? null).' and '
                .self::moment($backup->verified_at?->getTimestamp()).': '
                .implode(', ', array_slice(array_keys($backup->drift['files'] ?? []), 0, 3)),
            '',
            "found by backup $backup->id",
            false,
            (int) ($backup->drift['counts']['added'] ?? 0),
            (int) ($backup->drift['counts']['changed'] ?? 0),
            (int) ($backup->drift['counts']['removed'] ?? 0),
        ), $this->all($backups));
    }

    private static function moment(?int $at): string
    {
        return $at === null ? 'an earlier look' : CarbonImmutable::createFromTimestamp($at)->format('j M Y H:i');
    }

    /** @return list<SheetSite> */
    private function sites(): array
    {
        $counts = Backup::whereIn('site_id', $this->sites->pluck('id'))
            ->whereIn('state', [BackupState::Verified, BackupState::Expired])
            ->whereBetween('verified_at', [$this->from, $this->until])
            ->groupBy('site_id')
            ->selectRaw('site_id, COUNT(*) AS many')
            ->pluck('many', 'site_id');
        $rules = BackupRule::all();

        return array_values($this->sites->map(static fn (Site $site): SheetSite => new SheetSite(
            $site->domain,
            BackupRule::among($rules, $site)->every(),
            $site->backup_promised_at?->isPast() === true,
            (int) ($counts[$site->id] ?? 0),
            $site->last_backup_at?->getTimestamp(),
            $site->rehearsal_trouble === null ? $site->rehearsed_at?->getTimestamp() : null,
            $site->live_proven_at?->getTimestamp(),
        ))->all());
    }

    /** @return list<SheetAccess> the accounts themselves, and each FTP user that reached one of the sites then */
    private function access(): array
    {
        $homes = [];
        foreach ($this->sites as $site) {
            foreach ($site->homes() as $home) {
                $home->isWithin($this->from, $this->until) && $homes[$home->account->id][] = $home;
            }
        }
        $access = [];
        foreach ($homes as $there) {
            $access[] = self::ofAccount($there);
            $users = FtpUser::openWithin($this->from, $this->until)
                ->with('person')
                ->where('account_id', $there[0]->account->id)
                ->oldest('id')
                ->limit(self::MOST + 1)
                ->get();
            foreach ($this->all($users) as $user) {
                $reached = array_filter(
                    $there,
                    fn (SiteHome $home): bool => $home->wasReachedBy($user, $this->from, $this->until),
                );
                $reached === [] || $access[] = self::ofUser($user);
            }
        }

        return $access;
    }

    /** @param  non-empty-list<SiteHome>  $there  in one account */
    private static function ofAccount(array $there): SheetAccess
    {
        $account = $there[0]->account;
        $ends = array_map(static fn (SiteHome $home): ?int => $home->until?->getTimestamp(), $there);
        $left = in_array(null, $ends, true) ? null : max($ends);

        return new SheetAccess(
            $account->login,
            'the account itself',
            '/',
            '',
            $account->created_at->getTimestamp(),
            $account->removed_at?->getTimestamp() ?? $left,
            isAccount: true,
        );
    }

    private static function ofUser(FtpUser $user): SheetAccess
    {
        return new SheetAccess(
            $user->login,
            $user->purpose,
            $user->directory,
            $user->found_at === null ? $user->person->name ?? 'Cellarium' : '',
            $user->created_at->getTimestamp(),
            $user->closed_at?->getTimestamp(),
            $user->isProven() ? $user->reach_proven_at?->getTimestamp() : null,
            $user->refusal_proven_at?->getTimestamp(),
        );
    }

    /**
     * @template T of \Illuminate\Database\Eloquent\Model
     *
     * @param  Collection<int, T>  $found
     * @return list<T>
     *
     * @throws Problem
     */
    private function all(Collection $found): array
    {
        $found->count() <= self::MOST || throw new Problem(
            'More than '.number_format(self::MOST).' changes lie in this time. Choose a shorter one, or one site.',
        );

        return array_values($found->all());
    }
}
