<?php

declare(strict_types=1);

namespace App\Runs;

use App\Accounts\AccountCheck;
use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\Hosting\Connections;
use App\Models\Closing;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\ProofBy;
use App\Models\RecordKind;
use App\Models\SetAside;
use App\Plans\SiteFacts;
use App\Record\Record;
use App\Sites\LiveHeadline;
use App\Storage\RunFiles;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\ModeNotSet;
use Cellarium\Core\Deployment\PageProof;
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunEnd;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\Deployment\RunRefused;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferFailed;
use Illuminate\Support\Facades\DB;

/** Writes down how a run ended, and does what follows from that. */
final readonly class EndOfRun
{
    public function __construct(
        private RunFiles $files,
        private FtpUsers $ftpUsers,
        private AccountCheck $check,
        private SiteFacts $facts,
        private Connections $connections,
        private OpenAddresses $open,
    ) {
    }

    public function writeDown(Deployment $deployment, RunResult $result): void
    {
        $site = $deployment->site;
        $endedAt = now();
        $done = in_array($result->end, [RunEnd::Proven, RunEnd::PutBack, RunEnd::PutBackUnproven], true);
        if ($done && $deployment->ftpUser?->ends === Closing::WithJob && ! $deployment->ftpUser->hasEnded()) {
            // Before the end is written down: a run that has ended has nothing open any more.
            $this->ftpUsers->close($deployment->ftpUser, 'its job has ended');
        }
        if ($result->cause instanceof RunRefused && $result->cause->reason->asksForAnotherPlan()) {
            $this->planAnew($deployment, $result->cause);

            return;
        }
        if ($result->after !== null && $result->plan !== null) {
            $this->files->keepAfter(
                $deployment,
                $result->after,
                $result->plan->leaves(
                    $result->after,
                    $deployment->comparedWith === null ? null : $this->files->left($deployment->comparedWith),
                ),
            );
            $this->keepKnown($deployment, $result, false);
        }
        DB::transaction(fn () => $this->write($deployment, $result, $endedAt));
        if ($done) {
            $this->lookAgain($deployment);
        }
        if ($result->end === RunEnd::Proven) {
            $result->found === null || $this->open->settle($deployment, $result->found);
            $this->settle($deployment, $result, $endedAt);
        }
    }

    /**
     * Looks once more at what was sent last, once the second in which it was sent has gone by: then nothing of it has
     * to be read again the next time. Everybody has been told how it ended by now.
     */
    private function settle(Deployment $deployment, RunResult $result, \DateTimeInterface $endedAt): void
    {
        $wait = (float) config('cellarium.settle_seconds');
        $look = $this->look($result, false);
        $open = array_filter(
            $look?->manifest->files() ?? [],
            static fn (ManifestEntry $file): bool => $file->sha256 !== null
                && $file->modified !== null
                && $file->modified >= $look->trustedBefore,
        );
        if ($wait === 0.0 || $open === []) {
            return;
        }
        // A clock that was put back meanwhile does not make it wait for longer.
        $left = $wait - (microtime(true) - (float) $endedAt->format('U.u'));
        usleep((int) (1e6 * max(0, min($wait, $left))));
        try {
            $listed = $this->listed($deployment, $open);
        } catch (RemoteFailure $failure) {
            logger()->info("What was sent to {$deployment->site->domain} is read again: {$failure->getMessage()}");

            return;
        }
        foreach ($open as $file) {
            if (($listed[(string) $file->path] ?? null)?->looksLike($file) !== true) {
                return; // Somebody was there already; the next look shows what of it.
            }
        }
        $this->keepKnown($deployment, $result, true);
    }

    /**
     * @param  array<ManifestEntry>  $files
     * @return array<string, ManifestEntry> as their directories are listed now, by path
     *
     * @throws RemoteFailure
     */
    private function listed(Deployment $deployment, array $files): array
    {
        $remote = $this->connections->remote($deployment->site->account);
        $root = $deployment->runPlace()->root;
        $listed = [];
        foreach (array_unique(array_map(static fn ($file): string => (string) $file->path->parent(), $files)) as $in) {
            $directory = $in === '' ? $root : $root->join(RelativePath::fromString($in));
            foreach ($remote->list($directory) as $entry) {
                $path = RelativePath::tryFromString($in === '' ? $entry->name : "$in/$entry->name");
                $path === null || $listed[(string) $path] = Surveyor::entry($path, $entry);
            }
        }

        return $listed;
    }

    /**
     * What was sent is known from here on, and not read again the next time.
     *
     * @param  bool  $isPast  whether the second in which the last of it was sent has gone by
     */
    private function keepKnown(Deployment $deployment, RunResult $result, bool $isPast): void
    {
        $look = $this->look($result, $isPast);
        $look === null || $this->files->keepKnown($deployment->site, $deployment->runPlace()->root, $look);
    }

    private function look(RunResult $result, bool $isPast): ?EarlierLook
    {
        if ($result->after === null) {
            return null;
        }
        $sent = [];
        foreach ($result->plan?->files(Change::Add, Change::Replace) ?? [] as $item) {
            $sent[] = $result->after->get($item->path)?->modified;
        }
        $sent = array_filter($sent, is_int(...));

        return EarlierLook::afterSending(time(), $result->after, $sent === [] ? null : max($sent), $isPast);
    }

    /** Nothing was touched, and the server is not what the plan was made for: it is made for what is there now. */
    private function planAnew(Deployment $deployment, RunRefused $refused): void
    {
        $this->files->beginAnew($deployment);
        $refused->reason === RunRefusal::WayBarred && $deployment->site->update([
            'swap_barred' => $refused->why,
            'swap_barred_at' => now(),
        ]);
        $deployment->update([
            'state' => DeploymentState::Drafting,
            'changes_since' => ['reason' => $refused->reason->value],
            'backup_id' => null,
            'stage' => null,
            'progress' => null,
            'started_at' => null,
        ]);
        Record::write(
            RecordKind::PlanMade,
            "{$deployment->title()} on {$deployment->site->domain}: {$refused->getMessage()} The plan is made anew.",
            $deployment->site,
            ['deployment' => $deployment->id],
            $deployment->person,
        );
    }

    private function write(Deployment $deployment, RunResult $result, \DateTimeInterface $endedAt): void
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
                'paused_at' => null,
                'decide_until' => null,
                'tries_again' => false,
                'ended_at' => $endedAt,
                'trouble' => $this->trouble($result, $deployment->way),
                'left_behind' => $result->leftBehind,
                'left_behind_at' => $result->leftBehind === null ? null : now(),
                'proofs' => array_map(static fn (PageProof $proof): array => $proof->toArray(), $result->proofs),
                'addresses' => $result->addresses,
                'notes' => $result->notes === [] ? null : $result->notes,
                'found_live' => $result->found?->toArray(),
                'touched' => self::touched($deployment, $result),
                'read_back' => $result->readBack,
                'read_back_of' => $result->readBackOf,
                'unproven' => $result->unproven === [] ? null : $result->unproven,
                'modes_not_set' => $result->modesNotSet === [] ? null : array_map(
                    static fn (ModeNotSet $one): string => $one->sentence(),
                    $result->modesNotSet,
                ),
            ] + ($result->plan === null ? [] : ['counts' => $result->plan->counts()]),
        );
        if ($result->end === RunEnd::Proven) {
            $this->holdSetAside($deployment, $result);
            $deployment->way === Way::Swap && $site->update(['swap_barred' => null, 'swap_barred_at' => null]);
            $shown = $deployment->provenBy() === ProofBy::ReadingBack
                ? ['live_proven_at' => null]
                : LiveProofs::shown(
                    $site,
                    $result->proofs,
                    count($result->proofs) < $result->addresses || $result->readBack < $result->readBackOf,
                );
            $site->update($shown + $this->facts->of($deployment, $result->after));
            LiveHeadline::refresh($site);
        }
        Record::write(
            RecordKind::fromRunEnd($result->end),
            $this->sentence($deployment, $result),
            $site,
            ['deployment' => $deployment->id],
            $deployment->person,
        );
    }

    /** @return list<string>|null paths that a change of some files has touched; null for one of a whole, or of many */
    private static function touched(Deployment $deployment, RunResult $result): ?array
    {
        $isSome = $deployment->kind->isByHand() || $deployment->paths !== null;
        $items = $isSome ? $result->plan?->files(Change::Add, Change::Replace, Change::SetAside) ?? [] : [];

        return ! $isSome || count($items) > LiveHeadline::MOST_PATHS
            ? null
            : array_map(static fn (PlanItem $item): string => $item->path->toString(), $items);
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

    private function trouble(RunResult $result, Way $way): ?string
    {
        $words = $result->cause === null ? null : Problem::words($result->cause);

        return match ($result->end) {
            RunEnd::Proven => null,
            RunEnd::Refused => "$words Nothing on the server was changed.",
            RunEnd::PutBack => $way->laysTree()
                ? "$words The old site is as it was, under its own names"
                    .($result->proofs === [] ? '.' : '; its pages were fetched.')
                : "$words The old site was put back and is whole again: every file was read back"
                    .($result->proofs === [] ? '.' : ', and the pages were fetched.'),
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
            RunEnd::Proven => "$what: "
                .match (true) {
                    $deployment->provenBy() === ProofBy::ReadingBack => 'there and proven by reading back, visitors '
                        .'not asked, in ',
                    $result->found?->but() === null => 'live and proven in ',
                    default => 'live in ',
                }
                .($deployment->seconds() ?? 0).' s'
                .($result->found?->but() === null ? '' : "; {$result->found->but()}")
                .($result->modesNotSet === [] ? '' : '; '.count($result->modesNotSet).' modes could not be set'),
            RunEnd::Refused => "$what: refused before anything was touched. ".$deployment->trouble,
            RunEnd::PutBack => "$what: failed and put back. ".$deployment->trouble,
            RunEnd::PutBackUnproven => "$what: failed; put back, not proven. ".$deployment->trouble,
            RunEnd::Unfinished => "$what: failed, not yet put back. ".$deployment->trouble,
        };
    }
}
