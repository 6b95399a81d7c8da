<?php

declare(strict_types=1);

namespace App\Sites;

use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\OpenAddress;
use App\Models\Person;
use App\Models\ProofKind;
use App\Models\SetAside;
use App\Models\SharedDirectory;
use App\Models\Site;
use App\Text\Amount;
use Carbon\CarbonImmutable;
use Carbon\CarbonInterface;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\SiteReach;
use Cellarium\Core\Words\Count;
use Illuminate\Support\Collection;

/** The page of a site: what is live, what is proven and how old each proof is, who can touch it. */
final readonly class SiteView
{
    private const MOST = 6;

    public Account $account;

    /** @var Collection<int, Deployment> the last ones, whatever became of them */
    public Collection $deployments;

    /** @var Collection<int, Backup> */
    public Collection $backups;

    /** @var list<SiteToucher> the account's own login first */
    public array $touchers;

    /** @var Collection<int, SetAside> what is held and was taken out last */
    public Collection $aside;

    /** How many files are held. */
    public int $heldAside;

    /** @var Collection<int, OpenAddress> addresses that answer everybody and should not */
    public Collection $open;

    private ?Backup $backup;

    public function __construct(public Site $site)
    {
        $this->account = $site->account;
        $this->deployments = $site->deployments()
            ->with([...Deployment::titled(), 'person'])
            ->latest('id')
            ->limit(self::MOST)
            ->get();
        $this->backups = $site->backups()->with('person')->latest('id')->limit(self::MOST)->get();
        $this->backup = $site->backups()
            ->where('state', BackupState::Verified)
            ->where('root', $site->application_root) // One of a mounted directory is none of the site.
            ->latest('verified_at')
            ->first();
        $this->aside = $site->setAside()
            ->held()
            ->with([...Deployment::titled('deployment.'), 'change'])
            ->latest('id')
            ->limit(self::MOST)
            ->get();
        $this->heldAside = $this->aside->count() < self::MOST
            ? $this->aside->count()
            : $site->setAside()->held()->count();
        $this->touchers = $this->whoCanTouch();
        $this->open = OpenAddress::where('site_id', $site->id)->orderBy('id')->get();
    }

    /** What visitors see, in a few words. */
    public function live(): string
    {
        $last = $this->site->lastDeployment;

        return match (true) {
            $this->site->placeholder === true => 'the host’s placeholder',
            $last === null && $this->site->placeholder === null => 'not looked at yet',
            $last === null => 'a site from before, not deployed from here',
            default => $this->site->live_says ?? LiveHeadline::forSite($this->site) ?? $last->title(),
        };
    }

    /** Since when and by whom; "" where nothing was deployed from here. */
    public function since(): string
    {
        $last = $this->site->lastDeployment;

        return $last?->ended_at === null
            ? ''
            : ($last->kind->isByHand() ? 'last on ' : 'put there ').$last->ended_at->shown('j M Y H:i').', by '
                .($last->person?->shortName() ?? 'the console');
    }

    /** On which backup it can go back in one step; null where there is no step to take back. */
    public function wayBack(): ?string
    {
        $last = $this->site->lastDeployment;

        return $last?->backup === null
            ? null
            : "one step, onto backup number {$last->backup->id} of {$last->backup->verified_at?->shown('j M H:i')}";
    }

    public function canGoBack(): bool
    {
        return $this->site->lastDeployment?->backup !== null;
    }

    /** @return list<ProvenFact> what is proven, and how old each proof is */
    public function proven(): array
    {
        return [
            $this->rootFact(),
            $this->pagesFact(),
            $this->phpFact(),
            $this->backupFact(),
            $this->rehearsalFact(),
            $this->reachFact(),
        ];
    }

    private function phpFact(): ProvenFact
    {
        $said = $this->site->php;
        $version = $said['version'] ?? null;

        return match (true) {
            $said === null => ProvenFact::missing('PHP', 'not asked yet'),
            $version === null => ProvenFact::holds('PHP', 'runs none', CarbonImmutable::parse($said['asked_at'])),
            default => ProvenFact::holds(
                'PHP',
                "$version, ".count($said['extensions']).' extensions',
                CarbonImmutable::parse($said['asked_at']),
            ),
        };
    }

    private function rootFact(): ProvenFact
    {
        $proof = $this->site->proofs()->where('kind', ProofKind::DocumentRoot)->latest('id')->first();

        return match (true) {
            $this->site->root_proven_at !== null => ProvenFact::holds(
                'Document root',
                $this->site->leads_elsewhere ? 'token answered at the host’s own address' : 'token answered',
                $this->site->root_proven_at,
            ),
            $proof !== null && ! $proof->ok => ProvenFact::fails('Document root', $proof->sentence, $proof->made_at),
            default => ProvenFact::missing('Document root', 'not proven yet'),
        };
    }

    private function pagesFact(): ProvenFact
    {
        $last = $this->site->lastDeployment;
        $fetched = count($last->proofs ?? []);

        return match (true) {
            $this->site->placeholder === true => ProvenFact::missing('Live pages', 'nothing is deployed'),
            $last?->wasReadBackOnly() === true => ProvenFact::missing('Live pages', 'visitors were not asked'),
            $this->site->live_proven_at === null => ProvenFact::missing('Live pages', 'not proven from here'),
            $fetched === 0 => ProvenFact::holds('Live pages', 'answered', $this->site->live_proven_at),
            default => ProvenFact::holds(
                'Live pages',
                $fetched.($last->addresses > $fetched ? " of $last->addresses" : '')
                    .self::answered($last->proofs ?? []),
                $this->site->live_proven_at,
            ),
        };
    }

    /**
     * What a program says cannot be compared with anything.
     *
     * @param  list<array<string, mixed>>  $proofs  as PageProof::toArray() gives them
     */
    private static function answered(array $proofs): string
    {
        $same = count(array_filter($proofs, static fn (array $proof): bool => $proof['matches'] === true));

        return match ($same) {
            count($proofs) => ' fetched, same bytes',
            0 => ' answered',
            default => " answered, $same with the same bytes",
        };
    }

    private function backupFact(): ProvenFact
    {
        if ($this->backup?->verified_at === null) {
            return ProvenFact::missing(
                'Backup',
                $this->site->placeholder === true ? 'nothing to hold yet' : 'none yet',
            );
        }
        $before = $this->backup->verified_at < $this->site->lastDeployment?->ended_at;
        $words = Amount::files($this->backup->files).', '.Amount::bytes($this->backup->bytes).', read back'
            .($before ? '; from before the last deployment' : '');

        return $this->site->backup_promised_at?->isPast() === true
            ? ProvenFact::late(
                'Backup',
                "$words; promised ".BackupRule::forSite($this->site)->every(),
                $this->backup->verified_at,
            )
            : ProvenFact::holds('Backup', $words, $this->backup->verified_at);
    }

    private function rehearsalFact(): ProvenFact
    {
        $last = $this->backups->firstWhere('rehearsed_at', $this->site->rehearsed_at)?->rehearsal;
        $words = 'rehearsed'.($last === null ? '' : ', '.Amount::files((int) $last['files']));

        return match (true) {
            $this->site->rehearsed_at === null => ProvenFact::missing('Bringing back', 'not rehearsed yet'),
            $this->site->rehearsal_promised_at?->isPast() === true => ProvenFact::late(
                'Bringing back',
                "$words; longer ago than promised",
                $this->site->rehearsed_at,
            ),
            default => ProvenFact::holds('Bringing back', $words, $this->site->rehearsed_at),
        };
    }

    private function reachFact(): ProvenFact
    {
        $users = array_filter(array_map(static fn (SiteToucher $one): ?FtpUser => $one->user, $this->touchers));
        $unproven = array_filter($users, static fn (FtpUser $user): bool => ! $user->isProven());
        $oldest = collect($users)->pluck('reach_proven_at')->filter()->min();

        return match (true) {
            $users === [] => ProvenFact::holds('Reach', 'only the account itself', null),
            $unproven !== [] => ProvenFact::fails('Reach', count($unproven).' of '.count($users).' not proven', null),
            default => ProvenFact::holds(
                'Reach',
                Count::words(count($users), 'FTP user, proven', 'FTP users, all proven'),
                $oldest instanceof CarbonInterface ? $oldest : null,
            ),
        };
    }

    /** Whether the account is another client's, of whom whoever looks knows nothing. */
    private function isShared(): bool
    {
        $client = Person::clientOfViewer();

        return $client !== null && $this->account->client_id !== $client;
    }

    /** @return list<SiteToucher> */
    private function whoCanTouch(): array
    {
        $touchers = [SiteToucher::account($this->account, $this->isShared())];
        foreach ($this->account->ftpUsers as $user) {
            $user->setRelation('account', $this->account);
            $reached = $user->hasEnded() ? null : $this->reached($user);
            $reached === null || $touchers[] = SiteToucher::user($user, $reached);
        }

        return $touchers;
    }

    private function reached(FtpUser $user): ?SiteReach
    {
        foreach ($user->reach()->touched() as $reached) {
            if ($reached->domain === $this->site->domain && $reached->extent !== Extent::None) {
                return $reached;
            }
        }

        return null;
    }

    /** Space of the site, and of its account. */
    public function space(): string
    {
        $account = $this->account->space_limit === null
            ? 'space of the account not known'
            : 'account: '.Amount::bytes($this->account->space_used).' of '.Amount::bytes($this->account->space_limit);

        $here = $this->site->bytes === null ? 'not looked at yet' : Amount::bytes((int) $this->site->bytes).' here';

        return match (true) {
            $this->isShared() => $here,
            $this->site->bytes === null => $account,
            default => "$here; $account",
        };
    }

    /** @return list<array{directory: string, address: string|null}> the document root and what is mounted below it */
    public function places(): array
    {
        return array_map(fn (string $directory): array => [
            'directory' => $directory,
            'address' => $this->site->addressOf($directory),
        ], [$this->site->document_root, ...array_column($this->site->mounts, 'directory')]);
    }

    /** @return list<array{SharedDirectory, RemotePath}> other accounts that have its files, and where they have them */
    public function alsoReached(): array
    {
        $root = $this->site->applicationRoot();

        return array_map(
            static fn (SharedDirectory $shared): array => [$shared, $shared->toThere($root) ?? $shared->there()],
            $this->account->sharing($root),
        );
    }

    /** The deployment that is at work or waits; null where none is. */
    public function going(): ?Deployment
    {
        return $this->deployments->first(
            static fn (Deployment $run): bool => $run->state->isGoing() || $run->state === DeploymentState::Drafting,
        );
    }

    /** How many can sign in, the account with them. */
    public function signsIn(): string
    {
        $many = count($this->touchers);

        return "$many can touch it";
    }
}
