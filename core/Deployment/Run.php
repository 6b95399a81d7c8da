<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\Backup;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Backup\ListingDoubted;
use Cellarium\Core\Backup\PackedFetch;
use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\Backup\VerifiedBackup;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Json\JsonLines;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Survey;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;

/**
 * Carries out an order: survey, backup, plan, send, replace, prove; or puts back what it began.
 *
 * Every step is noted once it is confirmed, and doing a step again does no harm, so a killed run is taken up by
 * carrying out the same order with the same journal.
 */
final readonly class Run
{
    private const CUT_OFF = 'The run was cut off, and its journal lacks what it had written down.';

    private Surveyor $surveyor;

    private BackupTaker $backups;

    /** @param  LiveProof|null  $proof  null where visitors are not asked */
    public function __construct(
        private RunTools $tools,
        private RunListener $listener,
        private ?LiveProof $proof,
        private SiteAtHost $site,
        private OtherRuns $others,
    ) {
        $this->surveyor = new Surveyor($tools->pool, $tools->limits);
        $this->backups = new BackupTaker($tools->pool, $tools->store, $tools->shelf, $tools->clock);
    }

    public function carryOut(RunOrder $order): RunResult
    {
        $lost = $this->marksAreLost();
        try {
            $before = $this->backup($order);
            $plan = $this->plan($order, $before->manifest, $lost);
        } catch (RunRefused $refused) {
            $this->packing($order)?->forget();

            return new RunResult(RunEnd::Refused, $this->backupName(), cause: $refused);
        } catch (TransferFailed|StoreFailure|SurveyStopped|Cancelled|PathRefused|PlanImpossible $failure) {
            $this->packing($order)?->forget();

            return $lost
                ? new RunResult(
                    RunEnd::Unfinished,
                    $this->backupName(),
                    cause: new \RuntimeException(self::CUT_OFF),
                    notPutBack: $failure,
                )
                : new RunResult(RunEnd::Refused, $this->backupName(), cause: RunRefused::notPossible($failure));
        }
        $backup = (string) $this->backupName();
        try {
            $way = $this->way($order, $lost);
        } catch (RunRefused $barred) {
            return new RunResult(RunEnd::Refused, $backup, cause: $barred);
        }
        $cause = new \RuntimeException($this->tools->journal->kept('cause') ?? self::CUT_OFF);
        if (! $lost && ! $this->tools->journal->has(JournalMark::PuttingBack)) {
            try {
                $this->takeBeside();
                $held = $this->held($plan, $before->manifest);
                $refused = $way->carryOut($plan, $before);
                $proven = (new RunProof($this->tools, $this->surveyor, $this->listener, $this->proof))
                    ->prove($order, $plan, $before, $refused, $held);

                return $proven->leaving($this->tidied($way, $plan, $before));
            } catch (RunRefused $barred) {
                return new RunResult(RunEnd::Refused, $backup, cause: $barred);
            } catch (TransferFailed|StoreFailure|ProofFailed|SurveyStopped|Cancelled|PathRefused|ControlFailure $e) {
                $cause = $e;
                try {
                    $this->tools->journal->keep('cause', $cause->getMessage());
                    $this->tools->journal->note(JournalMark::PuttingBack);
                } catch (StoreFailure $unwritten) {
                    // Without the note a killed way back would be taken for a way forward.
                    return new RunResult(RunEnd::Unfinished, $backup, $plan, null, [], $cause, $unwritten);
                }
            }
        }

        return $this->putBack($way, $plan, $before, $backup, $cause);
    }

    /**
     * Lets go of what a proven run has left beside the new version, since it could not then.
     *
     * @return string|null why some of it is still there
     */
    public function tidy(RunOrder $order): ?string
    {
        $plan = (new KeptPlan($this->tools->journal, 'plan'))->plan();
        $backup = $this->backupName();
        if ($plan === null || $backup === null || ! $this->tools->journal->has(JournalMark::Proven)) {
            return null;
        }
        try {
            return $this->tidied($this->way($order, false), $plan, VerifiedBackup::noted($this->tools->shelf, $backup));
        } catch (StoreFailure $failure) {
            return $failure->getMessage();
        }
    }

    /** @throws StoreFailure */
    private function takeBeside(): void
    {
        if ($this->tools->journal->kept('beside') === null && ! $this->hasBegun()) {
            $taken = $this->site->takeDatabases();
            $taken === null || $this->tools->journal->keep('beside', JsonLines::line($taken));
        }
    }

    /** Whether something of the site may have been replaced already. */
    private function hasBegun(): bool
    {
        return $this->tools->journal->has(JournalMark::Renaming) || $this->tools->journal->has(JournalMark::Replaced);
    }

    /**
     * What browsers may go on showing, asked before anything is replaced; null where that was missed.
     *
     * @return list<HeldCopy>|null
     */
    private function held(Plan $plan, Manifest $before): ?array
    {
        $kept = $this->tools->journal->kept('held');
        if ($kept !== null) {
            return array_map(HeldCopy::fromFields(...), JsonFields::fromJson($kept)->each('held'));
        }
        if ($this->proof === null || $this->hasBegun()) {
            return null;
        }
        $held = $this->proof->held($plan, $before, $this->tools->clock);
        $this->tools->journal->keep('held', JsonLines::line([
            'held' => array_map(static fn (HeldCopy $one): array => $one->toArray(), $held),
        ]));

        return $held;
    }

    /** @throws RunRefused */
    private function way(RunOrder $order, bool $notesAreLost): WayToReplace
    {
        if ($order->way === Way::FileByFile) {
            return new FileByFile(
                $this->tools->pool,
                $this->tools->store,
                $this->surveyor,
                $this->tools->journal,
                $this->listener,
                $order,
                $notesAreLost,
            );
        }

        if ($order->root->depth() === 0) {
            throw RunRefused::wayBarred('the login begins there and does not reach the directory above');
        }
        $host = $order->way === Way::Unpack ? $this->site->jobs() : null;
        if ($order->way === Way::Unpack && $host === null) {
            throw RunRefused::wayBarred('the host does not offer to unpack');
        }

        return new SwapDirectory(
            $this->tools->pool,
            new SwapTrees($this->tools->pool, $this->surveyor),
            $host === null
                ? new LayBySending($this->tools->pool, $this->tools->journal, $this->listener)
                : new LayByUnpacking(
                    $this->tools->pool,
                    $this->tools->store,
                    $this->tools->journal,
                    $this->listener,
                    $order,
                    $host,
                    $this->tools->clock,
                ),
            $host === null ? new NamesByLogin($this->tools->pool) : new NamesByHost($host, $order),
            $this->tools->journal,
            $this->listener,
            $order,
            $this->others,
        );
    }

    /** @return string|null why something that is no longer needed stays behind; what is new is proven */
    private function tidied(WayToReplace $way, Plan $plan, VerifiedBackup $before): ?string
    {
        try {
            $way->tidy($plan, $before);

            return null;
        } catch (TransferFailed|StoreFailure|SurveyStopped|PathRefused|ProofFailed|ControlFailure $failure) {
            return $failure->getMessage();
        }
    }

    /**
     * Whether the journal lacks what is known to have been written down before: a power cut took it. What was done
     * since
     * is not known then, so the only way is back; "nothing was changed" must not be said.
     */
    private function marksAreLost(): bool
    {
        return ($this->tools->journal->kept('backup') !== null && ! $this->tools->journal->has(JournalMark::BackedUp))
            || ($this->tools->journal->kept('plan') !== null && ! $this->tools->journal->has(JournalMark::Planned))
            || $this->tools->journal->kept('lost') !== null;
    }

    private function backupName(): ?string
    {
        $name = array_key_first($this->tools->journal->noted(JournalMark::BackedUp));

        return $name ?? $this->tools->journal->kept('backup');
    }

    private function backup(RunOrder $order): VerifiedBackup
    {
        $name = $this->backupName();
        if ($name !== null) {
            // Said once more for the next time: from here on the journal has marks again, and they tell of less than
            // was done.
            $this->marksAreLost() && $this->tools->journal->keep('lost', '1');

            return VerifiedBackup::noted($this->tools->shelf, $name);
        }
        $this->listener->stage(RunStage::Surveying, 0, 0);
        $lacks = $this->site->lacks();
        if ($lacks !== null) {
            throw RunRefused::lacks($lacks);
        }
        $survey = $this->surveyor->survey($order->root);
        $this->settleOthers($order, $survey);
        $listed = $survey->manifest;
        if ($survey->skipped !== [] && $order->way !== Way::FileByFile) {
            // They cannot be moved to the new directory, and would go with the old one.
            throw RunRefused::wayBarred(
                'names lie there that the protocol cannot carry, the first of them '.$survey->skipped[0],
            );
        }
        if ($order->seen !== null && $listed->digest() !== $order->seen) {
            throw RunRefused::changedSincePlanned();
        }
        $listing = $this->trusted($order, $survey);
        $unknown = array_filter(
            $listing->manifest->files(),
            static fn (ManifestEntry $file): bool => $file->sha256 === null,
        );
        $this->listener->stage(
            RunStage::BackingUp,
            count($unknown),
            array_sum(array_map(static fn (ManifestEntry $file): int => $file->size, $unknown)),
        );
        $backup = $this->backups->take(
            $listing,
            fn (ManifestEntry $file) => $this->listener->moved($file->path->toString(), $file->size),
            $this->packing($order),
        )->without($survey->skipped);
        $this->tools->journal->keep('backup', $backup->name);
        $this->tools->journal->note(JournalMark::BackedUp, $backup->name);
        $this->listener->backedUp($backup);

        return $backup->verified;
    }

    /** @throws RunRefused|TransferFailed */
    private function trusted(RunOrder $order, Survey $survey): TrustedListing
    {
        try {
            $listing = TrustedListing::fromSurvey(
                $this->tools->pool,
                $order->root,
                $survey,
                $order->known,
                $this->tools->collapseShare,
                $order->collapseAccepted,
            );
        } catch (ListingDoubted $doubted) {
            throw RunRefused::collapsed($doubted);
        }

        return $order->readAnew ? $listing : $listing->knowing($order->known);
    }

    /** Null where the host does nothing by itself, and where what lies beside the root has an address. */
    private function packing(RunOrder $order): ?PackedFetch
    {
        $host = $order->hidesBeside && $order->root->depth() > 0 ? $this->site->jobs() : null;

        return $host === null ? null : new PackedFetch($this->tools->pool, $host, $order->root, $order->id);
    }

    /**
     * What other runs have laid down here is theirs while they go on, and left over once they have ended.
     *
     * @throws RunRefused when another run is at work here, through whichever account
     * @throws TransferFailed
     */
    private function settleOthers(RunOrder $order, Survey $survey): void
    {
        foreach ($survey->temporary as $run => $files) {
            if ((string) $run === $order->id) {
                continue;
            }
            $going = $this->others->isGoing((string) $run);
            if ($going === true) {
                throw RunRefused::placeInUse();
            }
            if ($going === false) {
                $this->tools->pool->run(array_map(static fn (RemotePath $path): Job => new DiscardFile($path), $files));
            }
        }
    }

    private function plan(RunOrder $order, Manifest $before, bool $lost): Plan
    {
        $kept = (new KeptPlan($this->tools->journal, 'plan'))->plan();
        if ($kept !== null) {
            return $kept;
        }
        $plan = Planner::plan($order->target, $before, $order->policy, $order->left, $order->answers);
        if ($lost) {
            return $plan; // The same as then: it follows from the order and the backup.
        }
        $open = array_map(static fn (PlanItem $item): string => (string) $item->path, $plan->openQuestions());
        if ($open !== []) {
            throw RunRefused::questions($open);
        }
        $room = $this->site->room();
        $needed = match ($order->way) {
            Way::FileByFile => $plan->bytesToSend(),
            Way::Swap => StagedTree::fromPlan($plan)->bytes(),
            // The archive lies there until all of it is unpacked.
            Way::Unpack => 2 * StagedTree::fromPlan($plan)->bytes(),
        };
        if ($room !== null && $needed + $order->spaceBeside > $room) {
            throw RunRefused::noRoom($needed, $order->spaceBeside, $room);
        }
        (new KeptPlan($this->tools->journal, 'plan'))->keep($plan);
        $this->tools->journal->note(JournalMark::Planned);
        $this->listener->planned($plan);

        return $plan;
    }

    private function putBack(
        WayToReplace $way,
        Plan $plan,
        VerifiedBackup $before,
        string $backup,
        \Throwable $cause,
    ): RunResult {
        try {
            // Before anything is looked at: from here on it cannot be cancelled.
            $this->listener->stage(RunStage::PuttingBack, 0, 0);
            $paths = $way->putBack($plan, $before);
            $proofs = $this->proof?->proveBack($plan, $before->manifest) ?? [];
            $this->tools->journal->note(JournalMark::PutBack);
        } catch (TransferFailed|StoreFailure|SurveyStopped|PathRefused|ProofFailed|ControlFailure $failure) {
            return new RunResult(RunEnd::Unfinished, $backup, $plan, null, [], $cause, $failure);
        }
        $wrong = array_filter($proofs, static fn (PageProof $proof): bool => ! $proof->holds());
        $unproven = [
            ...$paths,
            ...array_values(array_map(static fn (PageProof $proof): string => $proof->url, $wrong)),
        ];

        return new RunResult(
            $unproven === [] ? RunEnd::PutBack : RunEnd::PutBackUnproven,
            $backup,
            $plan,
            $paths === [] ? $before->manifest : null,
            [...($cause instanceof ProofFailed ? $cause->proofs : []), ...$proofs],
            $cause,
            unproven: $unproven,
        );
    }
}
