<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Backup\ContentStore;
use Cellarium\Core\Backup\StoreFailure;
use Cellarium\Core\Backup\Survey;
use Cellarium\Core\Backup\Surveyor;
use Cellarium\Core\Backup\TemporaryName;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Manifest;
use Cellarium\Core\Plan\ManifestEntry;
use Cellarium\Core\Plan\Plan;

/**
 * Brings the paths that a plan touched back to what the backup holds, from whatever state a run left them in.
 *
 * Looks first and changes only what differs, so it can be broken off and done again.
 */
final readonly class PuttingBack
{
    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private Surveyor $surveyor,
        private Journal $journal,
        private RunListener $listener,
    ) {
    }

    /**
     * @throws TransferFailed
     * @throws StoreFailure
     * @throws ProofFailed when the server does not list the old state afterwards
     */
    public function carryOut(RunOrder $order, Plan $plan, Manifest $before): void
    {
        $now = $this->surveyor->survey($order->root);
        // Room first: in a full account the old files would not fit beside what is half sent.
        $this->pool->run(array_map(static fn (RemotePath $path): Job => Job::discard($path), $now->temporary));
        $back = $this->missing($plan, $before, $now);
        $this->listener->stage(RunStage::PuttingBack, count($back), array_sum(array_map(static fn (ManifestEntry $entry): int => $entry->size, $back)));
        foreach (array_reverse($plan->directoriesToRemove()) as $item) {
            $this->pool->run([Job::makeDirectory($order->root->join($item->path), $item->path->toString())]);
        }
        $this->restore($order, $back);
        $this->removeAdded($order, $plan, $now->manifest);
        $this->check($order, $plan, $before);
    }

    /** @return list<ManifestEntry> files of the backup that were given a new version, or are no longer listed as they were */
    private function missing(Plan $plan, Manifest $before, Survey $now): array
    {
        $renaming = $this->journal->has(Mark::Renaming);
        $sent = $this->journal->noted(Mark::Sent);
        $back = [];
        foreach ($plan->files(Change::Replace, Change::SetAside) as $item) {
            $old = $before->get($item->path);
            $present = $now->manifest->get($item->path);
            if ($old !== null && ($present === null || ! $present->looksLike($old) || ($renaming && isset($sent[$item->path->toString()])))) {
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
            $temporary = $order->root->join($entry->path->renamed(TemporaryName::of($order->id, $index)));
            $sends[] = Job::send($this->store->file((string) $entry->sha256), $temporary, $entry->size, $entry->path->toString());
            $renames[] = Job::rename($temporary, $order->root->join($entry->path), $entry->mode, $entry->path->toString());
        }
        $this->pool->run($sends, fn (Job $job) => $this->listener->moved($job->subject, $job->size));
        $this->pool->run($renames);
    }

    private function removeAdded(RunOrder $order, Plan $plan, Manifest $now): void
    {
        $jobs = [];
        foreach ($plan->files(Change::Add) as $item) {
            if ($now->get($item->path) !== null) {
                $jobs[] = Job::discard($order->root->join($item->path), $item->path->toString());
            }
        }
        $this->pool->run($jobs);
        foreach (array_reverse($plan->directoriesToMake()) as $item) {
            if ($now->get($item->path) !== null) {
                $this->pool->run([Job::removeDirectory($order->root->join($item->path), $item->path->toString())]);
            }
        }
    }

    private function check(RunOrder $order, Plan $plan, Manifest $before): void
    {
        $now = $this->surveyor->survey($order->root)->manifest;
        foreach ($plan->items as $item) {
            if (! $item->change->touches()) {
                continue;
            }
            $old = $before->get($item->path);
            $present = $now->get($item->path);
            if (($old === null) !== ($present === null) || ($old !== null && $old->isFile() && $old->size !== $present?->size)) {
                throw ProofFailed::listing($item->path->toString());
            }
        }
    }
}
