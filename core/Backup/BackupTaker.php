<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job;
use Cellarium\Core\Transfer\JobResult;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Fetches what is not in the store yet, keeps the manifest, and reads everything back. */
final readonly class BackupTaker
{
    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private BackupShelf $shelf,
        private \Psr\Clock\ClockInterface $clock,
    ) {
    }

    /**
     * @param  Manifest  $listed  hashes known where an earlier look is trusted; the others are fetched
     * @param  (\Closure(ManifestEntry): void)|null  $fetched  called for each file that has come
     *
     * @throws TransferFailed
     * @throws StoreFailure
     */
    public function take(RemotePath $root, Manifest $listed, ?\Closure $fetched = null): Backup
    {
        $entries = [];
        $missing = [];
        $readings = [];
        foreach ($listed->all() as $entry) {
            if ($entry->isFile() && ($entry->sha256 === null || ! $this->store->has($entry->sha256))) {
                $missing[$entry->path->toString()] = $entry;
            } else {
                $entries[] = $entry;
                ! $entry->isFile() ?: $readings[] = $entry->readAt;
            }
        }
        $jobs = (function () use ($missing, $root): \Generator {
            foreach ($missing as $path => $entry) {
                yield Job::fetch(
                    $root->join($entry->path),
                    $this->store->incoming(),
                    $entry->size,
                    (string) $path,
                );
            }
        })();
        $this->pool->run($jobs, function (Job $job, JobResult $result) use (&$entries, $missing, $fetched): void {
            $entry = $missing[$job->subject];
            $content = $this->store->adopt((string) $job->local);
            if ($content->size !== $entry->size) {
                throw new TransferFailed($job, RemoteFailure::while("fetching $job->path", FailureReason::Incomplete));
            }
            $entries[] = $entry->withSha256($content->sha256, $this->clock->now()->getTimestamp());
            if ($fetched !== null) {
                $fetched($entry);
            }
        });
        $manifest = Manifest::of($entries);
        $name = $this->shelf->keep($manifest, $this->clock->now());
        $this->verify($name);

        $dated = array_filter($readings, static fn (?int $at): bool => $at !== null);

        return new Backup(
            $name,
            $manifest,
            count($missing),
            array_sum(array_map(static fn (ManifestEntry $entry): int => $entry->size, $missing)),
            count($readings),
            $dated === [] ? null : min($dated),
        );
    }

    /**
     * Reads the manifest and all contents back and compares every hash.
     *
     * @throws StoreFailure naming the first file that is not as it was
     */
    public function verify(string $name): void
    {
        $seen = [];
        foreach ($this->shelf->manifest($name)->files() as $file) {
            $sha256 = $file->sha256 ?? throw StoreFailure::damaged($file->path->toString());
            if (! isset($seen[$sha256]) && ! $this->store->isIntact($sha256, $file->size)) {
                throw StoreFailure::damaged($file->path->toString());
            }
            $seen[$sha256] = true;
        }
    }
}
