<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\DumpsDatabases;
use Cellarium\Core\Hosting\HostDatabase;
use Cellarium\Core\Hosting\HostJob;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\KeepFile;
use Cellarium\Core\Transfer\Job\ListDirectory;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Has the host write the databases of a site out, beside its document root, and fetches them into the store. */
final readonly class DatabaseFetch
{
    /**
     * @param  string  $run  letters a-z and digits, unique; part of temporary names
     * @param  RemotePath  $root  as the login sees it; nothing that lies beside it has an address
     */
    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private DumpsDatabases $host,
        private HostJobs $at,
        private RemotePath $root,
        private string $run,
    ) {
    }

    /**
     * @param  string  $site  domain
     * @return list<TakenDatabase> read back
     *
     * @throws ControlFailure|TransferFailed|StoreFailure
     */
    public function take(string $site): array
    {
        $taken = [];
        foreach ($this->host->databases() as $number => $database) {
            $database->site !== $site || $taken[] = $this->one($database, $number + 1);
        }

        return $taken;
    }

    private function one(HostDatabase $database, int $number): TakenDatabase
    {
        $file = $this->root->parent()->child(TemporaryName::forRun($this->run, $number));
        try {
            $this->at->finish(
                "writing out the database $database->name",
                fn (): HostJob => $this->host->dump(
                    "$this->run-dump-$number",
                    $database->name,
                    $this->at->path($file, $this->root),
                ),
            );
            $content = $this->fetch($file);
        } finally {
            $this->pool->run([new DiscardFile($file)]);
        }
        $isIntact = $this->store->isIntact((string) $content->sha256, $content->bytes);

        return $isIntact
            ? new TakenDatabase($database->name, (string) $content->sha256, $content->bytes)
            : throw StoreFailure::damaged("the database $database->name");
    }

    private function fetch(RemotePath $file): JobResult
    {
        $size = 0;
        $this->pool->run(
            [new ListDirectory($file->parent())],
            static function (Job $job, JobResult $listed) use ($file, &$size): void {
                $size = array_column($listed->entries, 'size', 'name')[$file->name()] ?? 0;
            },
        );
        $content = new JobResult;
        $this->pool->run(
            [new KeepFile($file, $size, $file->name())],
            static function (Job $job, JobResult $kept) use (&$content): void {
                $content = $kept;
            },
        );

        return $content;
    }
}
