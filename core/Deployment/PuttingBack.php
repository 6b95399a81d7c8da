<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\HashFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\MakeDirectory;
use Cellarium\Core\Transfer\Job\RemoveDirectory;
use Cellarium\Core\Transfer\Job\RenameFile;
use Cellarium\Core\Transfer\Job\SendContent;
use Cellarium\Core\Transfer\Job\SetMode;
use Cellarium\Core\Transfer\Survey;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/**
 * Brings the paths that a plan touched back to what the backup holds, from whatever state a run left them in.
 *
 * Looks first and changes only what differs, so it can be broken off and done again. What was put back is read back:
 * a server that confirms what it does not keep, or lists what is not there, is found out.
 */
final readonly class PuttingBack
{
    /**
     * @param  bool  $notesAreLost  whether the journal may lack notes, so that it shows nothing about what was not done
     */
    public function __construct(
        private TransferPool $pool,
        private Surveyor $surveyor,
        private Journal $journal,
        private RunListener $listener,
        private bool $notesAreLost = false,
    ) {
    }

    /**
     * @return list<string> paths that the server does not hold as they were, although it confirmed every step
     *
     * @throws TransferFailed
     * @throws StoreFailure
     */
    public function carryOut(RunOrder $order, Plan $plan, Manifest $before): array
    {
        $now = $this->surveyor->survey($order->root);
        // Room first: in a full account the old files would not fit beside what is half sent.
        $this->pool->run(
            array_map(static fn (RemotePath $path): Job => new DiscardFile($path), $now->temporaryOf($order->id)),
        );
        $back = $this->missing($plan, $before, $now);
        $this->listener->stage(
            RunStage::PuttingBack,
            count($back),
            array_sum(array_map(static fn (ManifestEntry $entry): int => $entry->size, $back)),
        );
        foreach (array_reverse($plan->directoriesToRemove()) as $item) {
            $this->pool->run([new MakeDirectory($order->root->join($item->path), $item->path->toString())]);
        }
        $this->restore($order, $back);
        $this->pool->run($this->oldModes($order, $plan, $now->manifest));
        $this->removeAdded($order, $plan, $now->manifest);

        return array_values(
            array_unique([...$this->unlisted($order, $plan, $before), ...$this->notAsTheyWere($order, $back)]),
        );
    }

    /**
     * @return list<ManifestEntry> files of the backup that were given a new version, or are no longer listed as
     *     they were
     */
    private function missing(Plan $plan, Manifest $before, Survey $now): array
    {
        $renaming = $this->journal->has(JournalMark::Renaming);
        $sent = $this->journal->noted(JournalMark::Sent);
        $back = [];
        foreach ($plan->files(Change::Replace, Change::SetAside) as $item) {
            $old = $before->get($item->path);
            $present = $now->manifest->get($item->path);
            $perhapsReplaced = $this->notesAreLost || ($renaming && isset($sent[$item->path->toString()]));
            if ($old !== null && ($perhapsReplaced || $present === null || ! $present->looksLike($old))) {
                $back[] = $old;
            }
        }

        return $back;
    }

    /** @param  list<ManifestEntry>  $back */
    private function restore(RunOrder $order, array $back): void
    {
        $sends = [];
        $renames = [];
        foreach ($back as $index => $entry) {
            $temporary = $order->root->join($entry->path->renamed(TemporaryName::forRun($order->id, $index)));
            $sends[] = new SendContent((string) $entry->sha256, $temporary, $entry->size, $entry->path->toString());
            $renames[] = new RenameFile(
                $temporary,
                $order->root->join($entry->path),
                $entry->mode,
                $entry->path->toString(),
            );
        }
        $this->pool->run($sends, fn (Job $job) => $this->listener->moved($job->subject, $job->size));
        $this->pool->run($renames);
    }

    /**
     * Of what is still there, and of directories that are made again.
     *
     * @return list<Job>
     */
    private function oldModes(RunOrder $order, Plan $plan, Manifest $now): array
    {
        $jobs = [];
        foreach ($plan->items as $item) {
            $old = $item->live;
            $stays = $item->mode !== null && ! $item->change->touches();
            $isMadeAgain = ! $item->isFile() && $item->change === Change::SetAside;
            if ($old?->mode === null || ! ($stays || ($isMadeAgain && ! $old->hasUsualMode()))) {
                continue;
            }
            if ($isMadeAgain || $now->get($item->path)?->mode !== $old->mode) {
                $jobs[] = new SetMode($order->root->join($item->path), $old->mode, $item->path->toString());
            }
        }

        return $jobs;
    }

    /** What may have been given its name is removed whether it is listed or not: a listing may leave it out. */
    private function removeAdded(RunOrder $order, Plan $plan, Manifest $now): void
    {
        $sent = $this->journal->noted(JournalMark::Sent);
        $jobs = [];
        foreach ($plan->files(Change::Add) as $item) {
            if ($this->notesAreLost || isset($sent[$item->path->toString()]) || $now->get($item->path) !== null) {
                $jobs[] = new DiscardFile($order->root->join($item->path), $item->path->toString());
            }
        }
        $this->pool->run($jobs);
        foreach (array_reverse($plan->directoriesToMake()) as $item) {
            if ($now->get($item->path) !== null) {
                $this->pool->run([new RemoveDirectory($order->root->join($item->path), $item->path->toString())]);
            }
        }
    }

    /** @return list<string> touched paths that are not listed as they were */
    private function unlisted(RunOrder $order, Plan $plan, Manifest $before): array
    {
        $now = $this->surveyor->survey($order->root)->manifest;
        $paths = [];
        foreach ($plan->items as $item) {
            $old = $before->get($item->path);
            $present = $now->get($item->path);
            $hasOtherMode = ($item->mode !== null || $item->change->touches())
                && $old?->mode !== null && $present?->mode !== null
                && $present->mode !== $old->mode;
            if (
                $hasOtherMode
                || $item->change->touches()
                && (($old === null) !== ($present === null)
                    || ($old !== null && $old->isFile() && $old->size !== $present?->size))
            ) {
                $paths[] = $item->path->toString();
            }
        }

        return $paths;
    }

    /**
     * @param  list<ManifestEntry>  $back
     * @return list<string> paths that are given back with other bytes, or not at all
     */
    private function notAsTheyWere(RunOrder $order, array $back): array
    {
        $jobs = [];
        $due = [];
        foreach ($back as $entry) {
            $due[$entry->path->toString()] = $entry->sha256;
            $jobs[] = new HashFile($order->root->join($entry->path), $entry->size, $entry->path->toString());
        }
        $paths = [];
        $this->pool->run($jobs, static function (Job $job, JobResult $result) use ($due, &$paths): void {
            if ($result->sha256 !== $due[$job->subject]) {
                $paths[] = $job->subject;
            }
        });

        return $paths;
    }
}
