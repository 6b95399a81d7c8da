<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Backup\Backup;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Backup\ContentStore;
use Cellarium\Core\Backup\StoreFailure;
use Cellarium\Core\Backup\Surveyor;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Manifest;
use Cellarium\Core\Plan\ManifestEntry;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Proof\LiveProof;
use Psr\Clock\ClockInterface;

/**
 * Carries out an order: survey, backup, plan, send, replace, prove; or puts back what it began.
 *
 * Every step is noted once it is confirmed, and doing a step again does no harm, so a killed run is taken up by
 * carrying out the same order with the same journal.
 */
final readonly class Run
{
    private Surveyor $surveyor;

    private BackupTaker $backups;

    /** @param  (\Closure(): ?int)|null  $room bytes left in the account, null where the host does not say */
    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private BackupShelf $shelf,
        private Journal $journal,
        private RunListener $listener,
        private ?LiveProof $proof,
        private ClockInterface $clock,
        private ?\Closure $room = null,
    ) {
        $this->surveyor = new Surveyor($pool);
        $this->backups = new BackupTaker($pool, $store, $shelf, $clock);
    }

    public function carryOut(RunOrder $order): RunResult
    {
        try {
            $before = $this->backup($order);
            $plan = $this->plan($order, $before);
        } catch (RunRefused $refused) {
            return new RunResult(RunEnd::Refused, array_key_first($this->journal->noted(Mark::BackedUp)), cause: $refused);
        } catch (TransferFailed|StoreFailure|PathRefused|PlanImpossible $failure) {
            return new RunResult(RunEnd::Refused, array_key_first($this->journal->noted(Mark::BackedUp)), cause: RunRefused::notPossible($failure));
        }
        $backup = (string) array_key_first($this->journal->noted(Mark::BackedUp));
        $replacing = new Replacing($this->pool, $this->store, $this->journal, $this->listener, $order);
        $cause = new \RuntimeException((string) $this->journal->kept('cause'));
        if (! $this->journal->has(Mark::PuttingBack)) {
            try {
                $replacing->carryOut($plan, $this->surveyor->survey($order->root)->temporary);
                [$after, $proofs] = $this->prove($order, $plan, $before);

                return new RunResult(RunEnd::Proven, $backup, $plan, $after, $proofs);
            } catch (TransferFailed|StoreFailure|ProofFailed|PathRefused $failure) {
                $cause = $failure;
                try {
                    $this->journal->keep('cause', $failure->getMessage());
                    $this->journal->note(Mark::PuttingBack);
                } catch (StoreFailure $unwritten) {
                    // Without the note a killed way back would be taken for a way forward.
                    return new RunResult(RunEnd::Unfinished, $backup, $plan, null, [], $cause, $unwritten);
                }
            }
        }

        return $this->putBack($order, $plan, $before, $backup, $cause);
    }

    private function backup(RunOrder $order): Manifest
    {
        foreach ($this->journal->noted(Mark::BackedUp) as $name => $yes) {
            return $this->shelf->manifest($name);
        }
        $this->listener->stage(RunStage::Surveying, 0, 0);
        $listed = $this->surveyor->survey($order->root)->manifest;
        if ($order->seen !== null && $listed->digest() !== $order->seen) {
            throw RunRefused::changedSincePlanned();
        }
        $listed = $listed->withKnownHashes($order->known, $order->knownAt - 60);
        $unknown = array_filter($listed->files(), static fn (ManifestEntry $file): bool => $file->sha256 === null);
        $this->listener->stage(RunStage::BackingUp, count($unknown), array_sum(array_map(static fn (ManifestEntry $file): int => $file->size, $unknown)));
        $backup = $this->backups->take($order->root, $listed, fn (ManifestEntry $file) => $this->listener->moved($file->path->toString(), $file->size));
        $this->journal->note(Mark::BackedUp, $backup->name);
        $this->listener->backedUp($backup);

        return $backup->manifest;
    }

    private function plan(RunOrder $order, Manifest $before): Plan
    {
        $kept = $this->journal->kept('plan');
        if ($kept !== null) {
            return Plan::fromJson($kept);
        }
        $plan = Planner::plan($order->target, $before, $order->policy);
        $room = $this->room === null ? null : ($this->room)();
        if ($room !== null && $plan->bytesToSend() > $room) {
            throw RunRefused::noRoom($plan->bytesToSend(), $room);
        }
        $this->journal->keep('plan', $plan->toJson());
        $this->journal->note(Mark::Planned);
        $this->listener->planned($plan);

        return $plan;
    }

    /** @return array{Manifest, list<\Cellarium\Core\Proof\PageProof>} */
    private function prove(RunOrder $order, Plan $plan, Manifest $before): array
    {
        $this->listener->stage(RunStage::Proving, 0, 0);
        $after = $this->settled($order->root, $plan, $before);
        $proofs = $this->proof?->prove($plan, $after) ?? [];
        foreach ($proofs as $proof) {
            if (! $proof->holds()) {
                throw ProofFailed::live($proofs);
            }
        }
        $this->journal->note(Mark::Proven);

        return [$after, $proofs];
    }

    /** What the server lists now, with the hashes of what was sent; each touched path must be as the plan says. */
    private function settled(RemotePath $root, Plan $plan, Manifest $before): Manifest
    {
        $listed = $this->surveyor->survey($root)->manifest;
        $known = [];
        foreach ($plan->items as $item) {
            $now = $listed->get($item->path);
            $due = $item->change === Change::SetAside ? null : ($item->change === Change::Keep ? $item->live : $item->target ?? $item->live);
            if ($due === null ? $now !== null : ($now === null || $now->kind !== $due->kind || ($due->isFile() && $item->change->touches() && $now->size !== $due->size))) {
                throw ProofFailed::listing($item->path->toString());
            }
            if ($now !== null && $now->isFile()) {
                $sha256 = $item->change === Change::Keep ? $before->get($item->path)?->sha256 : $due->sha256;
                $known[] = $now->size === $due->size ? $now->withSha256($sha256) : $now;
            }
        }

        return $listed->with($known);
    }

    private function putBack(RunOrder $order, Plan $plan, Manifest $before, string $backup, \Throwable $cause): RunResult
    {
        try {
            (new PuttingBack($this->pool, $this->store, $this->surveyor, $this->journal, $this->listener))->carryOut($order, $plan, $before);
            $this->journal->note(Mark::PutBack);

            return new RunResult(RunEnd::PutBack, $backup, $plan, $before, $cause instanceof ProofFailed ? $cause->proofs : [], $cause);
        } catch (TransferFailed|StoreFailure|ProofFailed|PathRefused $failure) {
            return new RunResult(RunEnd::Unfinished, $backup, $plan, null, [], $cause, $failure);
        }
    }
}
