<?php

declare(strict_types=1);

namespace App\Accounts;

use App\FtpUsers\UnknownUsers;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Person;
use App\Models\ProofKind;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use App\Storage\RunIds;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\TlsUse;
use Cellarium\Core\Diagnosis\LadderResult;
use Cellarium\Core\Diagnosis\Rung;
use Cellarium\Core\DocumentRoot\DocumentRootProof;
use Cellarium\Core\DocumentRoot\PlaceholderPage;
use Cellarium\Core\DocumentRoot\RootCandidate;
use Cellarium\Core\DocumentRoot\RootFinder;
use Cellarium\Core\DocumentRoot\ServedSite;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Proof\ProofStep;
use Cellarium\Core\Reach\DirectoryTree;
use Cellarium\Core\Transfer\Cancelled;
use Illuminate\Support\Str;

/**
 * Looks at an account: does it connect, what directories are there, how much space is used, what stands in its sites.
 */
final readonly class AccountCheck
{
    public function __construct(
        private Connections $connections,
        private UnknownUsers $strangers,
        private SharedRoots $shared,
    ) {
    }

    /**
     * Climbs the ladder, writing down each rung as it is reached, and looks around at the top.
     *
     * @param  bool  $swept  looked at by itself: less is looked at, and only what changed goes into the record
     * @param  Person|null  $person  who asked for it, for the record
     * @return LadderResult its last rung tells whether every rung held
     *
     * @throws Cancelled where a person has cancelled it; the rungs that were reached stay written down
     */
    public function connect(Account $account, bool $swept = false, ?Person $person = null): LadderResult
    {
        $rungs = [];
        $before = $this->state($account);
        $account->update(['ladder' => [], 'climbing_at' => now()]);
        $ascent = $this->connections->ladder()->climb(
            $this->connections->endpointAsSaved($account),
            $account->known_address,
            $account->documentRoots(),
            function (Rung $rung) use ($account, $swept, &$rungs): void {
                $rungs[] = $rung->toArray();
                $account->update(['ladder' => $rungs]);
                if (! $swept && Account::whereKey($account->id)->whereNull('climbing_at')->exists()) {
                    throw Cancelled::byAPerson();
                }
            },
            $swept ? null : TemporaryName::forRun(RunIds::ofProbe(), 0),
        );
        $ascent->tls === null || $this->rememberTls($account, $ascent->tls);
        $broken = $ascent->broken();
        $account->update(
            [
                'tried_at' => now(),
                'latency_ms' => $ascent->latencyMs,
                'features' => $ascent->features,
                'trouble' => $broken?->reason?->value,
            ] + ($broken === null ? ['reached_at' => now(), 'known_address' => $ascent->address] : []),
        );
        try {
            if ($broken === null) {
                $swept ? $this->lookBriefly($account, $this->connections->remote($account)) : $this->look($account);
            }
        } finally {
            $account->update(['climbing_at' => null]);
        }
        $swept
            || Record::write(
                RecordKind::AccountConnected,
                $broken === null
                    ? "Connected to $account->host as $account->login"
                    : "Could not connect to $account->host: $broken->evidence",
                $account,
                person: $person,
            );
        $this->tellWhatChanged($account, $before, $broken);

        return $ascent;
    }

    /** What does with a server does for all accounts on it. */
    private function rememberTls(Account $account, TlsUse $tls): void
    {
        if ($account->protocol->usesTls() && $account->tls_use !== $tls) {
            Account::where('host', $account->host)->where('port', $account->port)->update(['tls_use' => $tls]);
            $account->tls_use = $tls;
        }
    }

    /**
     * @return array{bool|null, array<string, bool|null>} whether it connected when last tried, null when it never
     *     was, and whether each site showed a placeholder
     */
    private function state(Account $account): array
    {
        return [
            $account->tried_at === null ? null : ! $account->doesNotConnect(),
            $account->sites->mapWithKeys(static fn (Site $site): array => [$site->domain => $site->placeholder])->all(),
        ];
    }

    /** @param  array{bool|null, array<string, bool|null>}  $before */
    private function tellWhatChanged(Account $account, array $before, ?Rung $broken): void
    {
        if ($before[0] !== null && $before[0] !== ($broken === null)) {
            Record::write(
                RecordKind::FoundChanged,
                $broken === null
                    ? "{$account->title()} connects again"
                    : "{$account->title()} no longer connects: $broken->evidence",
                $account,
            );
        }
        foreach ($account->sites as $site) {
            if (($before[1][$site->domain] ?? null) === false && $site->placeholder === true) {
                Record::write(
                    RecordKind::FoundChanged,
                    "$site->domain shows its host's placeholder page again",
                    $site->setRelation('account', $account),
                );
            }
        }
    }

    /** Takes in directories, space and placeholders. */
    public function look(Account $account, ?RemoteDirectory $remote = null): void
    {
        $remote ??= $this->connections->remote($account);
        $account->update(['tree' => DirectoryTree::look($remote)->toArray(), 'looked_at' => now()]);
        $this->lookBriefly($account, $remote);
    }

    private function lookBriefly(Account $account, RemoteDirectory $remote): void
    {
        $this->space($account);
        foreach ($account->sites as $site) {
            $this->lookForPlaceholder($site, $remote);
        }
    }

    public function space(Account $account): void
    {
        try {
            $control = $this->connections->control($account);
            $space = $control?->space();
            $account->update(
                ['space_used' => $space?->used, 'space_limit' => $space?->limit]
                    + ($control === null ? [] : ['login_rules' => $control->loginRules()?->toArray()]),
            );
            $control === null || $this->strangers->takeNote($account, $control->ftpUsers());
        } catch (ControlFailure $failure) {
            // Unknown is shown as unknown; the last figure would look like a fresh one.
            $account->update(['space_used' => null, 'space_limit' => null]);
            logger()->warning($failure->getMessage());
        }
    }

    /**
     * @param  RemotePath|null  $directory  becomes the document root when it is proven to be; null for the one it has
     */
    public function proveRoot(Site $site, ?RemotePath $directory = null): ProofStep
    {
        $root = $directory ?? $site->root();
        $nonce = strtolower(Str::random(20));
        // Written down first: a token that a killed process left behind is removed later.
        $site->update(['token' => $root->child(DocumentRootProof::tokenName($nonce))->toString()]);
        $remote = $this->connections->remote($site->account);
        $address = $this->connections->endpoint($site->account)->address;
        $step = DocumentRootProof::prove(
            new ServedSite($remote, $this->connections->web(), $site->addressesFrom($root), $address),
            $root,
            $nonce,
        );
        $site->proofs()->create(['kind' => ProofKind::DocumentRoot, 'made_at' => now()] + $step->toArray());
        $site->update(
            ['token' => null]
                + match (true) {
                    $step->ok => [
                        'document_root' => $root->toString(),
                        'application_root' => self::stillAbove($site, $root),
                        'root_proven_at' => now(),
                        'leads_elsewhere' => $step->next !== null,
                    ],
                    $directory === null => ['root_proven_at' => null],
                    default => [],
                },
        );
        Record::write(RecordKind::DocumentRootProven, $step->sentence, $site);
        $step->ok && $this->lookForOtherLogins($site, $remote);

        return $step;
    }

    /** Through which other accounts the same directory is reached; the proof of the root holds without it. */
    private function lookForOtherLogins(Site $site, RemoteDirectory $remote): void
    {
        $accounts = $this->shared->accounts($site);
        if ($accounts->isEmpty()) {
            return;
        }
        $nonce = strtolower(Str::random(20));
        $site->update(['token' => $site->root()->child(DocumentRootProof::tokenName($nonce))->toString()]);
        try {
            $this->shared->look($site, $remote, $accounts, $nonce);
            $site->update(['token' => null]);
        } catch (RemoteFailure $failure) {
            // The token is written down and goes later.
            logger()->warning("Who else has {$site->root()} of $site->domain is not known: {$failure->getMessage()}");
        }
    }

    private static function stillAbove(Site $site, RemotePath $root): ?string
    {
        return $site->applicationRoot()->toward($root) === null ? null : $site->application_root;
    }

    /** @return list<RootCandidate> also written down with the site */
    public function findRoot(Site $site): array
    {
        $habits = Site::whereHas('account', static fn ($query) => $query->where('host', $site->account->host))
            ->whereNotNull('root_proven_at')
            ->where('id', '!=', $site->id)
            ->get(['document_root', 'domain'])
            ->map(static fn (Site $other): string => RootFinder::habit($other->root(), $other->domain))
            ->unique()
            ->values()
            ->all();
        $found = (new RootFinder($site->start_pages, $habits))->find(
            $this->connections->remote($site->account),
            $site->domain,
        );
        $site->update([
            'candidates' => array_map(static fn (RootCandidate $candidate): array => $candidate->toArray(), $found),
        ]);

        return $found;
    }

    /** Removes the token that a proof left behind when it was cut off. */
    public function removeToken(Site $site): void
    {
        $token = RemotePath::fromString((string) $site->token);
        $remote = $this->connections->remote($site->account);
        if ($remote->stat($token) !== null) {
            $remote->remove($token);
        }
        $site->update(['token' => null]);
    }

    private function lookForPlaceholder(Site $site, RemoteDirectory $remote): void
    {
        $names = [];
        foreach ($remote->list($site->root()) as $entry) {
            $names[$entry->name] = $entry;
        }
        $found = null;
        foreach ($site->start_pages as $name) {
            if (isset($names[$name])) {
                $isFile = $names[$name]->kind === EntryKind::File;
                $page = $site->root()->child($name);
                $found = $isFile && (new PlaceholderPage)->isAt($remote, $page, $names[$name]->size) ? $name : null;
                break;
            }
        }
        $site->update(['placeholder' => $found !== null, 'placeholder_file' => $found]);
    }
}
