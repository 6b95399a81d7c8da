<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\VerifiedBackup;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\HashFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\SetMode;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;

/** Proves a run: by what the server lists, by what its addresses show, and by reading back what no address shows. */
final readonly class RunProof
{
    public function __construct(
        private RunTools $tools,
        private Surveyor $surveyor,
        private RunListener $listener,
        private ?LiveProof $proof,
    ) {
    }

    /**
     * @param  list<string>  $refused  paths whose mode the server refused to set
     * @param  list<HeldCopy>|null  $held  what browsers may go on showing; null where it was not asked for
     *
     * @throws ProofFailed where it does not show what it should, and nobody has it proven again
     * @throws TransferFailed|SurveyStopped|StoreFailure|PathRefused
     */
    public function prove(
        RunOrder $order,
        Plan $plan,
        VerifiedBackup $backup,
        array $refused,
        ?array $held = null,
    ): RunResult {
        $before = $backup->manifest;
        do {
            $this->listener->stage(RunStage::Proving, 0, 0);
            $after = $this->settled($order->root, $plan, $before);
            $all = 0;
            $proofs = $this->proof?->prove(
                $plan,
                $after,
                $before,
                function (PageProof $proof, ?string $path, int $of) use (&$all): void {
                    $all === $of || $this->listener->stage(RunStage::Proving, $of, 0);
                    $all = $of;
                    $this->listener->moved($proof->url, 0);
                    $path === null || $proof->gone || $proof->matches !== true || ! $proof->holds()
                        || $this->listener->shown($path);
                },
            ) ?? [];
            $failed = array_filter($proofs, static fn (PageProof $proof): bool => ! $proof->holds());
            $next = $failed === [] ? null : $this->listener->proofFailed($proofs);
            if ($next === AfterFailedProof::GoBack) {
                throw ProofFailed::live($proofs);
            }
            $next === AfterFailedProof::MendAndProve && $this->mend($order->root, $failed);
        } while ($failed !== []);
        [$read, $readOf] = $this->readBack($order, $plan);
        $this->tools->journal->note(JournalMark::Proven);
        $notes = $this->proof?->look($plan, $proofs, $this->tools->clock) ?? [];
        $addresses = $this->proof?->count($plan, $after) ?? 0;

        return new RunResult(
            RunEnd::Proven,
            $backup->name,
            $plan,
            $after,
            $proofs,
            addresses: $addresses,
            readBack: $read,
            readBackOf: $readOf,
            before: $before,
            modesNotSet: self::modesNotSet($plan, $after, $refused),
            notes: $notes,
            found: $this->proof?->find($plan, $after, $held),
        );
    }

    /**
     * Lets the web server in where a mode keeps it out.
     *
     * @param  array<PageProof>  $failed
     */
    private function mend(RemotePath $root, array $failed): void
    {
        $jobs = [];
        foreach ($failed as $proof) {
            if ($proof->mend !== null) {
                $path = $proof->mend->path;
                $jobs[$path] = new SetMode($root->join(RelativePath::fromString($path)), $proof->mend->mode, $path);
            }
        }
        $this->tools->pool->run($jobs);
    }

    /**
     * What the server lists counts, and where it lists no modes, what it answered.
     *
     * @param  list<string>  $refused  paths whose mode the server refused to set
     * @return list<ModeNotSet>
     */
    private static function modesNotSet(Plan $plan, Manifest $after, array $refused): array
    {
        $found = [];
        $isRefused = array_fill_keys($refused, true);
        foreach ($plan->items as $item) {
            $path = $item->path->toString();
            $due = $item->mode ?? ($item->change === Change::Replace ? $item->live?->mode : null);
            $has = $after->get($path)?->mode;
            if ($due !== null && $has !== $due && ($has !== null || isset($isRefused[$path]))) {
                $found[] = new ModeNotSet($path, $due, $has);
            }
        }

        return $found;
    }

    /**
     * Reads back what no address can show: programs, hidden files, and everything where there is no address.
     *
     * @return array{int, int} files that were read, and of how many
     *
     * @throws ProofFailed|TransferFailed
     */
    private function readBack(RunOrder $order, Plan $plan): array
    {
        $jobs = [];
        $due = [];
        $all = 0;
        foreach ($plan->files(Change::Add, Change::Replace) as $item) {
            $sent = $item->target;
            if ($sent === null || $this->proof?->isComparable($sent) === true) {
                continue;
            }
            if (++$all <= ($order->proofMost ?? PHP_INT_MAX)) {
                $due[$item->path->toString()] = $sent->sha256;
                $jobs[] = new HashFile(
                    $order->root->join($item->path),
                    $sent->size,
                    $item->path->toString(),
                    $order->believesHashes ? (string) $sent->sha256 : null,
                );
            }
        }
        $this->tools->pool->run($jobs, static function (Job $job, JobResult $result) use ($due): void {
            if ($result->sha256 !== $due[$job->subject]) {
                throw ProofFailed::bytes($job->subject);
            }
        });

        return [count($jobs), $all];
    }

    /** What the server lists now, with the hashes of what was sent; each touched path must be as the plan says. */
    private function settled(RemotePath $root, Plan $plan, Manifest $before): Manifest
    {
        $listed = $this->surveyor->survey($root)->manifest;
        $known = [];
        foreach ($plan->items as $item) {
            $now = $listed->get($item->path);
            $due = match (true) {
                $item->change === Change::SetAside => null,
                $item->change === Change::Keep || $item->change === Change::LeftAway => $item->live,
                default => $item->target ?? $item->live,
            };
            if (
                $due === null
                    ? $now !== null
                    : $now === null
                        || $now->kind !== $due->kind
                        || ($due->isFile() && $item->change->touches() && $now->size !== $due->size)
            ) {
                throw ProofFailed::listing($item->path->toString());
            }
            if ($now !== null && $now->isFile()) {
                $sha256 = $item->change === Change::Keep ? $before->get($item->path)?->sha256 : $due->sha256;
                $known[] = $now->size === $due->size ? $now->withSha256($sha256) : $now;
            }
        }

        return $listed->with($known);
    }
}
