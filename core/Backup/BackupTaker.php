<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\ScratchFile;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\KeepFile;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;
use Psr\Clock\ClockInterface;

/**
 * Fetches what is not in the store as it was, keeps the manifest, and reads everything back: what was there before it
 * is relied on, what has come once it is kept.
 */
final readonly class BackupTaker
{
    /** So often files that changed while they were read are read again. */
    private const ROUNDS = 3;

    /**
     * @param  Surveyor|null  $surveyor  looks once more when files have been fetched, so that what changed meanwhile is
     *     read again; null where whoever asks for the backup sees to that
     */
    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private BackupShelf $shelf,
        private ClockInterface $clock,
        private ?Surveyor $surveyor = null,
    ) {
    }

    /**
     * @param  TrustedListing  $seen  hashes known where an earlier look is trusted; the others are fetched
     * @param  (\Closure(ManifestEntry): void)|null  $fetched  called for each file that has come
     * @param  PackedFetch|null  $packed  where the host may be able to pack them
     *
     * @throws TransferFailed
     * @throws StoreFailure
     */
    public function take(TrustedListing $seen, ?\Closure $fetched = null, ?PackedFetch $packed = null): Backup
    {
        [$root, $listed] = [$seen->root, $seen->manifest];
        $this->store->begin();
        $taken = new TakenFiles($fetched);
        $missing = $this->takeOver($listed, $taken);
        if ($packed !== null && count($missing) >= PackedFetch::FROM) {
            $this->unpack($packed, $missing, $taken);
        }
        for ($round = 1; $missing !== []; $round++) {
            $failed = $this->fetch($root, $missing, $taken, $round);
            $now = $this->surveyor?->survey($root)->manifest ?? $listed;
            $missing = $taken->then($now);
            $isStuck = static fn (TransferFailed $one): bool => isset($missing[$one->job->subject]);
            $stuck = array_filter($failed, $isStuck);
            if ($stuck !== [] && ($round === self::ROUNDS || $this->surveyor === null)) {
                throw array_values($stuck)[0];
            }
            if ($round === self::ROUNDS) {
                break; // They change each time; what was read last is what there is.
            }
        }
        $manifest = $taken->manifest();
        $this->store->flush();
        $name = $this->shelf->keep($manifest, $this->clock->now());

        return $taken->backup(VerifiedBackup::readBack($this->shelf, $this->store, $name, $manifest, $taken->come()));
    }

    /**
     * What an earlier reading left in the store, and is there as it was.
     *
     * @return array<string, ManifestEntry> the others
     */
    private function takeOver(Manifest $listed, TakenFiles $taken): array
    {
        $missing = [];
        $intact = [];
        foreach ($listed->all() as $entry) {
            if (! $entry->isFile()) {
                $taken->add($entry);

                continue;
            }
            $key = "$entry->sha256 $entry->size";
            $intact[$key] ??= $entry->sha256 !== null
                && $this->store->refresh($entry->sha256)
                && $this->store->isIntact($entry->sha256, $entry->size);
            $intact[$key] ? $taken->takeOver($entry) : $missing[$entry->path->toString()] = $entry;
        }

        return $missing;
    }

    /**
     * @param  array<string, ManifestEntry>  $missing
     * @return list<TransferFailed> of single files
     */
    private function fetch(RemotePath $root, array $missing, TakenFiles $taken, int $round): array
    {
        $jobs = (static function () use ($missing, $root, $round): \Generator {
            foreach ($missing as $path => $entry) {
                yield new KeepFile($root->join($entry->path), $entry->size, (string) $path, $round > 1);
            }
        })();

        return $this->pool->runAll($jobs, function (Job $job, JobResult $result) use ($taken, $missing): void {
            $taken->fetched(
                $missing[$job->subject],
                (string) $result->sha256,
                $result->bytes,
                $this->clock->now()->getTimestamp(),
            );
        });
    }

    /**
     * Takes what it can out of one archive; the rest is fetched by itself.
     *
     * @param  array<string, ManifestEntry>  $missing  without what was taken, afterwards
     */
    private function unpack(PackedFetch $packed, array &$missing, TakenFiles $taken): void
    {
        $file = ScratchFile::create();
        $archive = $packed->fetch($file->path) ? ArchivedContents::open($file->path, $this->store) : null;
        $at = $this->clock->now()->getTimestamp();
        foreach ($missing as $path => $entry) {
            $content = $archive?->take($entry);
            if ($content !== null) {
                $taken->fetched($entry, $content->sha256, $content->size, $at);
                unset($missing[$path]);
            }
        }
    }
}
