<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\HostJob;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Hosting\WorksOnFiles;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\ListDirectory;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Has the host pack a directory and fetches the archive: one file comes instead of thousands. */
final readonly class PackedFetch
{
    /** With fewer files to fetch, packing takes longer than fetching. */
    public const FROM = 50;

    private RemotePath $archive;

    /**
     * @param  string  $run  letters a-z and digits, unique; part of temporary names
     * @param  RemotePath  $root  as the login sees it; nothing that lies beside it has an address
     */
    public function __construct(
        private TransferPool $pool,
        private HostJobs $at,
        private RemotePath $root,
        private string $run,
    ) {
        $this->archive = $root->parent()->child(TemporaryName::forRun($run, 0));
    }

    /**
     * @param  string  $here  path of the zip archive on this machine, for whoever asked to remove
     * @return bool false where the host does not pack, and everything is to be fetched file by file
     */
    public function fetch(string $here): bool
    {
        try {
            if (! $this->at->host->offersJobs()) {
                return false;
            }
            $this->at->finish(
                'packing at the host',
                fn (WorksOnFiles $host): HostJob => $host->pack(
                    "$this->run-pack",
                    $this->at->path($this->root, $this->root),
                    $this->at->path($this->archive, $this->root),
                ),
            );
            $size = $this->size();
            $size === null || $this->pool->run([
                new FetchFile($this->archive, $here, $size, $this->archive->name()),
            ]);

            return $size !== null;
        } catch (ControlFailure) {
            return false; // Its files are there all the same.
        } finally {
            $this->discard();
        }
    }

    private function size(): ?int
    {
        $size = null;
        $this->pool->run(
            [new ListDirectory($this->archive->parent())],
            function (Job $job, JobResult $result) use (&$size): void {
                $size = array_column($result->entries, 'size', 'name')[$this->archive->name()] ?? null;
            },
        );

        return $size;
    }

    /** Of a run that was broken off while it packed, and then does not come to fetching it. */
    public function forget(): void
    {
        try {
            $this->discard();
        } catch (TransferFailed) {
            // The server is away; why the run ends is told, and that is more.
        }
    }

    /** @throws TransferFailed */
    private function discard(): void
    {
        $this->pool->run([new DiscardFile($this->archive)]);
    }
}
