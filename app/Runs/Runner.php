<?php

declare(strict_types=1);

namespace App\Runs;

use App\Backups\Backups;
use App\Failure\DatabaseAway;
use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\ProofBy;
use App\Models\RecordKind;
use App\Plans\DurationForecast;
use App\Plans\SiteFacts;
use App\Record\Record;
use App\Storage\KnownRuns;
use App\Storage\RunFiles;
use App\Storage\RunIds;
use App\Storage\RunLimits;
use App\Storage\SiteLockNames;
use Cellarium\Core\Backup\Backup as TakenBackup;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\VerifiedBackup;
use Cellarium\Core\Deployment\JournalMark;
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Deployment\RunTools;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Outage\Outage;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\HeldLock;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Transfer\TransferPools;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;
use Psr\Clock\ClockInterface;

/** Carries out a deployment, or takes up one that was broken off, and writes down how it ended. */
final readonly class Runner
{
    public function __construct(
        private Connections $connections,
        private RunFiles $files,
        private Locks $locks,
        private ContentStore $store,
        private BackupShelf $shelf,
        private ClockInterface $clock,
        private SiteFacts $facts,
        private SitesAtHost $sites,
        private LiveProofs $proofs,
        private EndOfRun $end,
        private TransferPools $pools,
    ) {
    }

    /** The host of a deployment, and a turn at its login; null where it is no more. */
    public static function claim(int $deployment): ?Claim
    {
        $account = Deployment::with('site.account')->find($deployment)?->site->account;

        return $account === null
            ? null
            : new Claim(Urgency::Ordered, $account->host, SiteLockNames::forLogin($account));
    }

    /**
     * @param  (\Closure(array<string, mixed>): void)|null  $hear  is told how it goes on
     * @return bool false when another run on the same account is going on; this one then waits
     */
    public function carryOut(Deployment $deployment, ?\Closure $hear = null): bool
    {
        $deployment->refresh();
        if (! $deployment->isGoing()) {
            return true;
        }
        $deployment->loadMissing(
            'site.account.client',
            'site.account.sites',
            'ftpUser.account.sites',
            'package',
            'backup',
            'fromBackup',
            'undoes.package',
            'comparedWith',
        );
        $site = $deployment->site;
        $lock = $this->locks->acquire(...SiteLockNames::forSite($site));
        if ($lock === null) {
            $this->wait($deployment);

            return false;
        }
        try {
            $deployment->refresh(); // Somebody else may have carried it out while the lock was waited for.
            if (! $deployment->isGoing()) {
                return true;
            }
            $deployment->update([
                'state' => DeploymentState::Running,
                'waits_for_id' => null,
                'started_at' => $deployment->started_at ?? now(),
            ]);
            $result = $this->run($deployment, $lock, $hear);
            $this->adoptBackup($deployment, $result);
            $this->adoptDatabases($deployment);
            $this->end->writeDown($deployment, $result);
        } finally {
            $lock->release();
        }

        return true;
    }

    /** Lets go of the old tree of a swap that could not be let go of then; of one that waits its turn, later. */
    public function tidy(Deployment $deployment): void
    {
        $lock = $this->locks->acquire(...SiteLockNames::forSite($deployment->site));
        if ($lock === null) {
            return;
        }
        try {
            $left = $this->at(
                $deployment,
                $lock,
                null,
                static fn (Run $run, RunOrder $order): ?string => $run->tidy($order),
            );
            $deployment->update(['left_behind' => $left, 'left_behind_at' => $left === null ? null : now()]);
        } finally {
            $lock->release();
        }
    }

    /** @param  (\Closure(array<string, mixed>): void)|null  $hear */
    private function run(Deployment $deployment, HeldLock $lock, ?\Closure $hear): RunResult
    {
        return $this->at(
            $deployment,
            $lock,
            $hear,
            static fn (Run $run, RunOrder $order): RunResult => $run->carryOut($order),
        );
    }

    /**
     * @template T
     *
     * @param  (\Closure(array<string, mixed>): void)|null  $hear
     * @param  \Closure(Run, RunOrder): T  $work
     * @return T
     */
    private function at(Deployment $deployment, HeldLock $lock, ?\Closure $hear, \Closure $work): mixed
    {
        $site = $deployment->site;
        $user = $deployment->ftpUser;
        $endpoint = $user === null || $user->hasEnded()
            ? $this->connections->endpoint($site->account)
            : $this->connections->endpointAs($user);
        $where = $deployment->runPlace();
        $root = $deployment->rootAsSignedIn() ?? throw new Problem("$user?->login cannot touch $where->root.");
        $user?->update(['used_at' => now()]);
        // What it begins with holds until it has ended, however often it is taken up.
        $deployment->proof_by === null && $deployment->update(['proof_by' => $deployment->provenBy()]);
        $asks = $deployment->proof_by === ProofBy::Visitors;
        $start = $asks ? $this->proofs->addresses($deployment)->start() : null;
        $hostAddress = $this->proofs->hostAddress($site, $endpoint->address);
        $watch = $start === null ? null : $this->connections->outageWatch($start, $hostAddress);
        // What asked is gone with what was killed.
        $earlier = $deployment->outage()
            ?? ($deployment->stage?->isUntouched() === false ? Outage::notMeasured() : null);
        $progress = new Progress(
            $deployment,
            fn (TakenBackup $backup) => $this->keepBackup($deployment, $backup),
            $hear,
            $watch,
        );
        $connections = DurationForecast::for($deployment)->connections;
        // What was broken off tells nothing of how long it takes.
        $isTakenUp = $this->files->journal($deployment)->has(JournalMark::BackedUp);
        $pool = $this->pools->open($endpoint, $connections, $progress, $lock->streams);
        try {
            $run = new Run(
                new RunTools(
                    $pool,
                    $this->store,
                    $this->shelf,
                    $this->files->journal($deployment),
                    $this->clock,
                    RunLimits::survey(),
                    RunLimits::collapseShare(),
                ),
                $progress,
                $asks ? $this->proofs->of($deployment, $hostAddress) : null,
                $this->sites->of($deployment),
                new KnownRuns,
            );

            return $work($run, new RunOrder(
                RunIds::forDeployment($deployment->id),
                $root,
                $this->files->target($deployment),
                Policy::fromFields(new JsonFields($deployment->policy)),
                $this->files->known($site, $where->root),
                $deployment->seen,
                $where->allInRun($site->start_pages),
                $this->facts->needs($deployment)->bytes ?? 0,
                RunLimits::readsAnew($site),
                $deployment->collapse_accepted,
                $this->files->thirdSide($deployment),
                $deployment->answers(),
                // Where nobody else is asked, the server's word for its own bytes proves nothing.
                $asks && (bool) config('cellarium.server_hashes'),
                $deployment->way,
                (float) config('cellarium.linger_seconds'),
                public: $where->public?->toString(),
                proofMost: $deployment->proof_most,
                hidesBeside: $site->servedAbove($where->root) === null,
            ));
        } finally {
            $pool->close();
            // Written with how it ended.
            $outage = $watch?->end();
            $deployment->outage = ($outage === null ? $earlier : $earlier?->then($outage) ?? $outage)?->toArray();
            $deployment->timings = $isTakenUp ? null : $progress->timings();
            $deployment->connections = $pool->taken() ?? $connections;
            $pool->taken() === null || DatabaseAway::tolerate(static function () use ($site, $pool): void {
                $site->account->update(['connections_most' => $pool->taken(), 'connections_seen_at' => now()]);
            });
        }
    }

    private function wait(Deployment $deployment): void
    {
        $ahead = RunAhead::find($deployment);
        $deployment->update(['state' => DeploymentState::Waiting, 'waits_for_id' => $ahead?->id]);
    }

    private function keepBackup(Deployment $deployment, TakenBackup $taken): void
    {
        $root = $deployment->runPlace()->root;
        $known = $this->files->known($deployment->site, $root);
        $backup = Backup::create([
            // What somebody else has changed since the last look is told with this one.
            'drift' => $root->equals($deployment->site->applicationRoot())
                ? Backups::drift($deployment->site, $known, $taken->manifest)
                : null,
            'site_id' => $deployment->site_id,
            'person_id' => $deployment->person_id,
            'reason' => BackupReason::before($deployment->kind),
            'state' => BackupState::Verified,
            'root' => $deployment->root,
        ] + Backups::facts($taken));
        $deployment->update(['backup_id' => $backup->id]);
        $this->shelf->claim($taken->name);
        $this->files->keepKnown(
            $deployment->site,
            $root,
            $known->then($deployment->started_at->getTimestamp(), $taken->manifest),
        );
        Record::write(
            RecordKind::BackupTaken,
            "Backup of {$deployment->site->domain} taken: {$backup->readings()}, the stored copy read back",
            $deployment->site,
            ['backup' => $backup->id],
            $deployment->person,
        );
    }

    /** A run killed between taking the backup and writing it down has it in its journal only. */
    private function adoptBackup(Deployment $deployment, RunResult $result): void
    {
        if ($result->backup !== null && $deployment->backup_id === null) {
            $this->keepBackup($deployment, $this->asTaken($result->backup));
        }
    }

    /** Of a run that was killed before its backup had a row. */
    private function adoptDatabases(Deployment $deployment): void
    {
        $kept = $this->files->journal($deployment)->kept('beside');
        $backup = $deployment->backup()->first();
        if ($kept === null || $backup === null || $backup->databases !== null || $backup->databases_said !== null) {
            return;
        }
        /** @var array<string, mixed> $taken */
        $taken = json_decode($kept, true, flags: JSON_THROW_ON_ERROR);
        $backup->update(array_intersect_key($taken, ['databases' => 1, 'databases_said' => 1]));
    }

    private function asTaken(string $name): TakenBackup
    {
        $verified = VerifiedBackup::noted($this->shelf, $name);
        $all = $verified->manifest->files();
        $readings = array_filter(array_map(static fn (ManifestEntry $file): ?int => $file->readAt, $all));

        return new TakenBackup($verified, 0, 0, count($all), $readings === [] ? null : min($readings));
    }
}
