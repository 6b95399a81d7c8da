<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Accounts\AccountCheck;
use App\Accounts\SitePhp;
use App\Backups\Backups;
use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\Hosting\Connections;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Closing;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\ProofKind;
use App\Models\RecordKind;
use App\Models\SetAside;
use App\Models\Site;
use App\Record\Record;
use App\Storage\RunFiles;
use App\Storage\RunIds;
use App\Storage\RunLimits;
use App\Storage\SiteLockNames;
use Cellarium\Core\Backup\Backup as TakenBackup;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\LiveAddresses;
use Cellarium\Core\Deployment\LiveProof;
use Cellarium\Core\Deployment\ModeNotSet;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunEnd;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\HeldLock;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\WorkerPool;
use Illuminate\Support\Facades\DB;
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
        private FtpUsers $ftpUsers,
        private AccountCheck $check,
        private SiteFacts $facts,
        private SitePhp $php,
    ) {
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
        );
        $site = $deployment->site;
        $lock = $this->locks->acquire(...SiteLockNames::of($site));
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
            $this->finish($deployment, $this->run($deployment, $lock, $hear));
        } finally {
            $lock->release();
        }

        return true;
    }

    /** @param  (\Closure(array<string, mixed>): void)|null  $hear */
    private function run(Deployment $deployment, HeldLock $lock, ?\Closure $hear): RunResult
    {
        $site = $deployment->site;
        $user = $deployment->ftpUser;
        $endpoint = $user === null || $user->hasEnded()
            ? $this->connections->endpoint($site->account)
            : $this->connections->endpointAs($user);
        $where = $deployment->runPlace();
        $root = $user === null || $user->hasEnded()
            ? $where->root
            : $where->root->seenFrom($user->path())
                ?? throw new Problem("$user->login cannot touch $where->root.");
        $user?->update(['used_at' => now()]);
        $progress = new Progress(
            $deployment,
            fn (TakenBackup $backup) => $this->keepBackup($deployment, $backup),
            $hear,
        );
        $pool = new WorkerPool(
            $endpoint,
            (int) config('cellarium.lanes'),
            $progress,
            $lock->streams,
            $this->connections->slots,
        );
        [$known, $knownAt] = $this->files->known($site, $where->root);
        try {
            $run = new Run(
                $pool,
                $this->store,
                $this->shelf,
                $this->files->journal($deployment),
                $progress,
                new LiveProof(
                    $this->connections->web(),
                    new LiveAddresses(
                        $site->addresses(),
                        $where,
                        $site->start_pages,
                        $this->facts->mustAnswer($deployment),
                    ),
                    RunLimits::proofShare(),
                    $site->leads_elsewhere ? $endpoint->address : null,
                ),
                $this->clock,
                fn (): ?int => $this->room($site),
                RunIds::isGoing(...),
                fn (): ?string => $this->lacking($deployment),
                RunLimits::collapseShare(),
                RunLimits::survey(),
            );

            return $run->carryOut(new RunOrder(
                RunIds::of($deployment->id),
                $root,
                $this->files->target($deployment),
                Policy::fromFields(new JsonFields($deployment->policy)),
                $known,
                $knownAt,
                $deployment->seen,
                $where->allInRun($site->start_pages),
                $this->facts->needs($deployment)->bytes ?? 0,
                RunLimits::readsAnew($site),
                $deployment->collapse_accepted,
            ));
        } finally {
            $pool->close();
        }
    }

    /** What the site lacks for the package, in words; what it does not say, its proof will show. */
    private function lacking(Deployment $deployment): ?string
    {
        $needs = $this->facts->needs($deployment);
        if (! $needs->areOfPhp()) {
            return null;
        }
        try {
            $answer = $this->php->ask($deployment->site, $deployment->runPlace()->served);
        } catch (RemoteFailure $failure) {
            logger()->warning("Which PHP {$deployment->site->domain} runs is not known: {$failure->getMessage()}");

            return null; // Where nothing can be put, the run itself says so.
        }

        return $answer->trouble === null ? $needs->lacking($answer->version, $answer->extensions) : null;
    }

    private function wait(Deployment $deployment): void
    {
        $other = Deployment::whereHas(
            'site',
            static fn ($query) => $query->where('account_id', $deployment->site->account_id),
        )
            ->where('state', DeploymentState::Running)
            ->where('id', '!=', $deployment->id)
            ->first();
        $deployment->update(['state' => DeploymentState::Waiting, 'waits_for_id' => $other?->id]);
    }

    private function room(Site $site): ?int
    {
        try {
            return $this->connections->control($site->account)?->space()->left();
        } catch (ControlFailure $failure) {
            logger()->warning($failure->getMessage());

            return null; // Not known; a full account then answers for itself, and all is put back.
        }
    }

    private function keepBackup(Deployment $deployment, TakenBackup $taken): void
    {
        $backup = Backup::create([
            'site_id' => $deployment->site_id,
            'person_id' => $deployment->person_id,
            'reason' => BackupReason::before($deployment->kind),
            'state' => BackupState::Verified,
            'root' => $deployment->root,
        ] + Backups::facts($taken));
        $deployment->update(['backup_id' => $backup->id]);
        $this->files->keepKnown(
            $deployment->site,
            $deployment->runPlace()->root,
            $taken->manifest,
            $deployment->started_at->getTimestamp(),
        );
        Record::write(
            RecordKind::BackupTaken,
            "Backup of {$deployment->site->domain} taken: {$backup->readings()}, the stored copy read back",
            $deployment->site,
            ['backup' => $backup->id],
            $deployment->person,
        );
    }

    private function finish(Deployment $deployment, RunResult $result): void
    {
        $site = $deployment->site;
        $endedAt = now();
        $done = in_array($result->end, [RunEnd::Proven, RunEnd::PutBack, RunEnd::PutBackUnproven], true);
        $this->adoptBackup($deployment, $result);
        if ($done && $deployment->ftpUser?->ends === Closing::WithJob && ! $deployment->ftpUser->hasEnded()) {
            // Before the end is written down: a run that has ended has nothing open any more.
            $this->ftpUsers->close($deployment->ftpUser, 'its job has ended');
        }
        if ($result->after !== null) {
            $this->files->keepAfter($deployment, $result->after);
            $this->files->keepKnown(
                $site,
                $deployment->runPlace()->root,
                $result->after,
                time(),
            );
        }
        DB::transaction(fn () => $this->writeDown($deployment, $result, $endedAt));
        if ($done) {
            $this->lookAgain($deployment);
        }
    }

    private function writeDown(Deployment $deployment, RunResult $result, \DateTimeInterface $endedAt): void
    {
        $site = $deployment->site;
        $deployment->update(
            [
                'state' => match ($result->end) {
                    RunEnd::Proven => DeploymentState::Proven,
                    RunEnd::Refused => DeploymentState::Refused,
                    RunEnd::PutBack => DeploymentState::PutBack,
                    RunEnd::PutBackUnproven => DeploymentState::PutBackUnproven,
                    RunEnd::Unfinished => DeploymentState::Unfinished,
                },
                'held' => $this->needsAPerson($result),
                'stage' => null,
                'progress' => null,
                'ended_at' => $endedAt,
                'trouble' => $this->trouble($result),
                'proofs' => array_map(static fn (PageProof $proof): array => $proof->toArray(), $result->proofs),
                'addresses' => $result->addresses,
                'read_back' => $result->readBack,
                'unproven' => $result->unproven === [] ? null : $result->unproven,
                'modes_not_set' => $result->modesNotSet === [] ? null : array_map(
                    static fn (ModeNotSet $one): string => $one->sentence(),
                    $result->modesNotSet,
                ),
            ] + ($result->plan === null ? [] : ['counts' => $result->plan->counts()]),
        );
        if ($result->end === RunEnd::Proven) {
            $this->holdSetAside($deployment, $result);
            foreach ($result->proofs as $proof) {
                $site
                    ->proofs()
                    ->create([
                        'kind' => ProofKind::Live,
                        'ok' => true,
                        'sentence' => $proof->sentence(),
                        'made_at' => now(),
                    ]);
            }
            $direct = array_filter($result->proofs, static fn (PageProof $proof): bool => $proof->at !== null);
            $site->update([
                'leads_elsewhere' => $direct !== [],
                'live_proven_at' => now(),
                'root_proven_at' => $site->root_proven_at ?? now(),
            ] + $this->facts->of($deployment, $result->after));
        }
        Record::write(
            RecordKind::of($result->end),
            $this->sentence($deployment, $result),
            $site,
            ['deployment' => $deployment->id],
            $deployment->person,
        );
    }

    /** What was taken out of the document root is held for its time, listed and restored from there. */
    private function holdSetAside(Deployment $deployment, RunResult $result): void
    {
        foreach ($result->plan?->files(Change::SetAside) ?? [] as $item) {
            $sha256 = $result->before?->get($item->path)?->sha256;
            if ($item->live === null || $sha256 === null) {
                continue;
            }
            SetAside::create([
                'site_id' => $deployment->site_id,
                'deployment_id' => $deployment->id,
                'path' => $item->path->toString(),
                'sha256' => $sha256,
                'bytes' => $item->live->size,
                'mode' => $item->live->mode,
                'set_aside_at' => now(),
                'held_until' => now()->addDays((int) config('cellarium.set_aside_days')),
            ]);
        }
        if (
            $deployment->undoes_id !== null
            && in_array($deployment->kind, [DeploymentKind::RestoreFiles, DeploymentKind::Undo], true)
        ) {
            $back = array_map(
                static fn (PlanItem $item): string => $item->path->toString(),
                $result->plan?->files(Change::Add) ?? [],
            );
            SetAside::held()
                ->where('deployment_id', $deployment->undoes_id)
                ->whereIn('path', $back)
                ->update(['restored_at' => now()]);
        }
    }

    /** A run killed between taking the backup and writing it down has it in its journal only. */
    private function adoptBackup(Deployment $deployment, RunResult $result): void
    {
        if ($result->backup !== null && $deployment->backup_id === null) {
            $this->keepBackup($deployment, $this->asTaken($result->backup));
        }
    }

    private function asTaken(string $name): TakenBackup
    {
        $manifest = $this->shelf->manifest($name);
        $files = count($manifest->files());
        $readings = array_filter(array_map(static fn (ManifestEntry $file): ?int => $file->readAt, $manifest->files()));

        return new TakenBackup(
            $name,
            $manifest,
            0,
            0,
            $files,
            $readings === [] ? null : min($readings),
        );
    }

    private function lookAgain(Deployment $deployment): void
    {
        try {
            $this->check->look($deployment->site->account);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            logger()->warning(
                'Looking at '.$deployment->site->domain.' again after its deployment: '.$failure->getMessage(),
            );
        }
    }

    /** Whether trying again by itself would do no good, or harm: hosts lock accounts out after refused passwords. */
    private function needsAPerson(RunResult $result): bool
    {
        return $result->notPutBack instanceof TransferFailed && ! $result->notPutBack->failure->reason->isTransient();
    }

    private function trouble(RunResult $result): ?string
    {
        $words = $result->cause === null ? null : Problem::words($result->cause);

        return match ($result->end) {
            RunEnd::Proven => null,
            RunEnd::Refused => "$words Nothing on the server was changed.",
            RunEnd::PutBack => "$words The old site was put back and is whole again: every file was read back, and "
                .'the pages were fetched.',
            RunEnd::PutBackUnproven => "$words The old site was put back, and that is not proven: "
                .self::few($result->unproven)
                .' not as before. Nothing this server confirms can be relied on until its provider has looked at it; '
                .'the backup is safe.',
            RunEnd::Unfinished => "$words Putting the old site back did not work either: "
                .Problem::words($result->notPutBack ?? new \RuntimeException('no reason is known'))
                .($this->needsAPerson($result)
                    ? ' Mend that, then try again here; the backup is safe.'
                    : ' It is tried again by itself; the backup is safe.'),
        };
    }

    /** @param  list<string>  $names */
    private static function few(array $names): string
    {
        $more = count($names) - 3;

        return implode(', ', array_slice($names, 0, 3))
            .match (true) {
                $more > 0 => " and $more more are",
                count($names) === 1 => ' is',
                default => ' are',
            };
    }

    /** Whoever is closed while their deployment is at work: it goes on, as theirs, and says so. */
    private function closedMeanwhile(Deployment $deployment): string
    {
        $person = $deployment->person()->first();

        return $person?->isClosed() === true ? ", begun by $person->name, who was closed meanwhile" : '';
    }

    private function sentence(Deployment $deployment, RunResult $result): string
    {
        $what = "{$deployment->title()} on {$deployment->site->domain}".$this->closedMeanwhile($deployment);

        return match ($result->end) {
            RunEnd::Proven => "$what: live and proven in ".($deployment->seconds() ?? 0).' s'
                .($result->modesNotSet === [] ? '' : '; '.count($result->modesNotSet).' modes could not be set'),
            RunEnd::Refused => "$what: refused before anything was touched. ".$deployment->trouble,
            RunEnd::PutBack => "$what: failed and put back. ".$deployment->trouble,
            RunEnd::PutBackUnproven => "$what: failed; put back, not proven. ".$deployment->trouble,
            RunEnd::Unfinished => "$what: failed, not yet put back. ".$deployment->trouble,
        };
    }
}
