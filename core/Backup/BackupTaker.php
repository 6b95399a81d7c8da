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
     * @param  PackedFetch|null  $packed  where the host may be able to pack them
     *
     * @throws TransferFailed
     * @throws StoreFailure
     */
    public function take(
        RemotePath $root,
        Manifest $listed,
        ?\Closure $fetched = null,
        ?PackedFetch $packed = null,
    ): Backup {
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
        $count = count($missing);
        $bytes = array_sum(array_map(static fn (ManifestEntry $entry): int => $entry->size, $missing));
        if ($packed !== null && $count >= PackedFetch::FROM) {
            $taken = static function (ManifestEntry $entry) use (&$entries, &$missing, $fetched): void {
                $entries[] = $entry;
                unset($missing[$entry->path->toString()]);
                $fetched === null || $fetched($entry);
            };
            $this->unpack($packed, $missing, $taken);
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
            $count,
            $bytes,
            count($readings),
            $dated === [] ? null : min($dated),
        );
    }

    /**
     * Takes what it can out of one archive; the rest is fetched by itself.
     *
     * @param  array<string, ManifestEntry>  $missing
     * @param  \Closure(ManifestEntry): void  $taken
     */
    private function unpack(PackedFetch $packed, array $missing, \Closure $taken): void
    {
        $file = $this->store->incoming();
        try {
            $archive = $packed->fetch($file) ? ArchivedContents::open($file, $this->store) : null;
            $at = $this->clock->now()->getTimestamp();
            foreach ($missing as $entry) {
                $content = $archive?->take($entry);
                $content === null || $taken($entry->withSha256($content->sha256, $at));
            }
        } finally {
            @unlink($file);
        }
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
