<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\ControlFault;
use Cellarium\Core\Hosting\HostJob;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Hosting\WorksOnFiles;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\ScratchFile;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\SendFile;
use Cellarium\Core\Transfer\TransferPool;
use Psr\Clock\ClockInterface;

/** Sends one archive, which the host unpacks: one file goes up instead of thousands. */
final readonly class LayByUnpacking implements LaysTree
{
    /** So quick that it never takes longer than what it saves of the way. */
    private const LEVEL = 1;

    /** Of a file that nobody gave another. */
    private const USUAL_MODE = 0644;

    /** What the journal has the job of the host under. */
    private const JOB = 'unpack';

    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private Journal $journal,
        private RunListener $listener,
        private RunOrder $order,
        private HostJobs $at,
        private ClockInterface $clock,
    ) {
    }

    public function barred(): ?string
    {
        return $this->at->host->offersJobs() ? null : 'the host does not offer to unpack any more';
    }

    public function settle(): void
    {
        $id = $this->journal->kept(self::JOB);
        if ($id === null) {
            return;
        }
        try {
            $this->at->finish('unpacking at the host', static fn (WorksOnFiles $host): HostJob => $host->job($id));
        } catch (ControlFailure $failure) {
            // That it failed, or is forgotten, is an end as well.
            $hasEnded = $failure->reason === ControlFault::Failed || $failure->reason === ControlFault::NoSuchJob;
            $hasEnded || throw $failure;
        }
    }

    public function lay(StagedTree $tree, RemotePath $root, RemotePath $laid): void
    {
        $this->settle();
        $archive = (new SwapPaths($root, $this->order->id))->archive;
        $here = ScratchFile::create();
        $this->listener->stage(RunStage::Packing, count($tree->files), 0);
        $this->pack($tree, $here->path);
        $bytes = (int) filesize($here->path);
        $this->listener->stage(RunStage::Sending, 1, $bytes);
        $this->pool->run(
            [
                new SendFile($here->path, $archive, $bytes, $archive->name()),
            ],
            fn (Job $job) => $this->listener->moved($job->subject, $bytes),
        );
        $this->unpack($tree, $archive, $laid);
        $this->pool->run([new DiscardFile($archive)]);
    }

    private function unpack(StagedTree $tree, RemotePath $archive, RemotePath $laid): void
    {
        $this->listener->stage(RunStage::Unpacking, count($tree->files), 0);
        $id = "{$this->order->id}-unpack-".bin2hex(random_bytes(6));
        $this->journal->keep(self::JOB, $id);
        $told = 0;
        $this->at->finish(
            'unpacking at the host',
            fn (WorksOnFiles $host): HostJob => $host->unpack(
                $id,
                $this->at->path($archive, $this->order->root),
                $this->at->path($laid, $this->order->root),
            ),
            function (int $done) use (&$told): void {
                for (; $told < $done; $told++) {
                    $this->listener->moved('', 0);
                }
            },
        );
    }

    /** @throws StoreFailure */
    private function pack(StagedTree $tree, string $here): void
    {
        $out = @fopen($here, 'wb');
        if ($out === false) {
            throw StoreFailure::writing('The archive of what is sent');
        }
        $zip = new ZipOut(static function (string $bytes) use ($out): void {
            @fwrite($out, $bytes) === strlen($bytes) || throw StoreFailure::writing('The archive of what is sent');
        });
        foreach (array_keys($tree->directories) as $path) {
            $zip->directory((string) $path, $this->clock->now()->getTimestamp(), null);
        }
        foreach ($tree->files as $file) {
            $zip->compressed(
                $file->entry->path->toString(),
                $this->clock->now()->getTimestamp(),
                $file->mode ?? self::USUAL_MODE,
                $this->store->read((string) $file->entry->sha256),
                self::LEVEL,
            );
            $this->listener->moved($file->entry->path->toString(), 0);
        }
        $zip->finish();
        fclose($out) || throw StoreFailure::writing('The archive of what is sent');
    }
}
