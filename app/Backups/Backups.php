<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\RecordKind;
use App\Models\SamePlace;
use App\Models\Site;
use App\Record\Record;
use App\Storage\RunFiles;
use App\Storage\RunIds;
use App\Storage\RunLimits;
use App\Storage\SiteLockNames;
use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\Backup as TakenBackup;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Backup\ListingDoubted;
use Cellarium\Core\Backup\PackedFetch;
use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Manifest\Drift;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Storage\HeldLock;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferPool;
use Cellarium\Core\Transfer\TransferPools;
use Psr\Clock\ClockInterface;

/** Takes backups on demand, outside of deployments. */
final readonly class Backups
{
    /** Files that changed while they were read, of which the names are kept. */
    private const MOST_NAMED = 200;

    public function __construct(
        private Connections $connections,
        private RunFiles $files,
        private Locks $locks,
        private StoreSettings $settings,
        private BackupShelf $shelf,
        private ClockInterface $clock,
        private DatabaseDumps $dumps,
        private TransferPools $pools,
    ) {
    }

    /** @return bool false when a run on the same place is going on */
    public function take(Backup $backup): bool
    {
        $backup->loadMissing('site.account.client', 'person');
        $names = SiteLockNames::forSite($backup->site);
        // Of those that nobody waits for, a host has one at a time.
        $backup->reason !== BackupReason::Scheduled || $names[] = "backups-at-{$backup->site->account->host}";
        $lock = $this->locks->acquire(...$names);
        if ($lock === null) {
            return false;
        }
        try {
            $backup->refresh(); // Somebody else may have taken it while the lock was waited for.
            if ($backup->state === BackupState::Taking) {
                $backup->update(['started_at' => now()]);
                $this->carryOut($backup, $lock);
            }
        } finally {
            $lock->release();
        }

        return true;
    }

    private function carryOut(Backup $backup, HeldLock $lock): void
    {
        $site = $backup->site;
        $progress = new BackupProgress($backup);
        $pool = $this->pools->open(
            $this->connections->endpoint($site->account),
            (int) config('cellarium.connections'),
            $progress,
            $lock->streams,
        );
        try {
            $listedAt = time();
            $root = $site->applicationRoot();
            $known = $this->files->known($site, $root);
            $surveyor = new Surveyor($pool, RunLimits::survey(), $progress->seen(...));
            $survey = $surveyor->survey($root);
            $listed = TrustedListing::fromSurvey(
                $pool,
                $root,
                $survey,
                $known,
                RunLimits::collapseShare(),
                $backup->collapse_accepted === true,
            );
            $taken = (new BackupTaker(
                $pool,
                $this->settings->bulk()->open(),
                $this->shelf,
                $this->clock,
                $surveyor,
            ))->take(
                RunLimits::readsAnew($site) ? $listed : $listed->knowing($known),
                $progress->fetched(...),
                $this->packed($backup, $pool),
            )->without($survey->skipped);
            $backup->update([
                'state' => BackupState::Verified,
                'progress' => null,
                'root' => $site->application_root,
            ] + self::facts($taken) + $this->dumps->take($site, $root, RunIds::ofBackup($backup->id)) + [
                'drift' => self::drift($site, $known, $taken->manifest),
            ]);
            $this->shelf->claim($taken->name);
            $site->update(['bytes' => $taken->manifest->bytes()]);
            $this->files->keepKnown($site, $root, $known->then($listedAt, $taken->manifest));
            Record::write(
                RecordKind::BackupTaken,
                "Backup of $site->domain taken: {$backup->readings()}, the stored copy read back"
                    .($backup->changed_meanwhile === null
                        ? ''
                        : '; changed while they were read, and read again: '
                            .implode(', ', array_slice($backup->changed_meanwhile, 0, 5))),
                $site,
                ['backup' => $backup->id],
                $backup->person,
            );
        } catch (\Throwable $failure) {
            $this->writeDown($backup, $failure);
        } finally {
            $pool->close();
        }
    }

    /** Where the host packs by itself, and what lies beside the directory has no address. */
    private function packed(Backup $backup, TransferPool $pool): ?PackedFetch
    {
        $root = $backup->site->applicationRoot();
        $host = $root->depth() === 0 || $backup->site->servedAbove($root) !== null
            ? null
            : $this->connections->jobs($backup->site->account);

        return $host === null ? null : new PackedFetch(
            $pool,
            new HostJobs($host, $root),
            $root,
            RunIds::ofBackup($backup->id),
        );
    }

    /**
     * What is different from the last look and was not done here.
     *
     * @return array{since: int, counts: array<string, int>, newest: int|null, files: array<string, array<string,
     *     mixed>>}|null
     */
    public static function drift(Site $site, EarlierLook $known, Manifest $now): ?array
    {
        if ($known->seenAt === 0) {
            return null;
        }
        // Whichever site and login it was looked at or changed through: it is one place.
        $place = SamePlace::ofSite($site);
        $since = collect([
            Backup::whereIn('site_id', $place->sites)->where('root', $site->application_root)->max('verified_at'),
            Deployment::whereIn('site_id', $place->sites)->max('ended_at'),
        ])->filter()->map(CarbonImmutable::parse(...))->max() ?? CarbonImmutable::createFromTimestamp($known->seenAt);
        $ours = [];
        $versions = $place->versions()->where('at', '>=', $since)->select(['id', 'account_id', 'path', 'after']);
        foreach ($versions->lazyById(500) as $version) {
            $ours += array_fill_keys($place->within($version), true);
        }
        $drift = Drift::between($known->manifest, $now, $ours);

        return $drift->files === [] ? null : [
            'since' => $since->getTimestamp(),
            'counts' => array_count_values(array_column($drift->files, 'kind')),
            'newest' => $drift->newest(),
            'files' => array_slice($drift->files, 0, self::MOST_NAMED, true),
        ];
    }

    /** @return array<string, mixed> what the row of a verified backup says of it */
    public static function facts(TakenBackup $taken): array
    {
        return [
            'name' => $taken->name,
            'files' => count($taken->manifest->files()),
            'bytes' => $taken->manifest->bytes(),
            'fetched_files' => $taken->fetchedFiles,
            'fetched_bytes' => $taken->fetchedBytes,
            'taken_over_files' => $taken->takenOverFiles,
            'taken_over_since' => $taken->takenOverSince === null
                ? null
                : CarbonImmutable::createFromTimestamp($taken->takenOverSince),
            'changed_meanwhile' => $taken->changedMeanwhile === []
                ? null
                : array_slice($taken->changedMeanwhile, 0, self::MOST_NAMED),
            'skipped' => $taken->skipped === [] ? null : array_slice($taken->skipped, 0, self::MOST_NAMED),
            'verified_at' => now(),
        ];
    }

    private function writeDown(Backup $backup, \Throwable $failure): void
    {
        $site = $backup->site;
        $expected = Problem::isExpected($failure);
        [$state, $kind] = match (true) {
            $failure instanceof ListingDoubted => [
                BackupState::Question,
                RecordKind::BackupQuestioned,
            ],
            $failure instanceof Cancelled => [BackupState::Cancelled, RecordKind::BackupCancelled],
            default => [BackupState::Failed, RecordKind::BackupFailed],
        };
        $backup->update([
            'state' => $state,
            'progress' => null,
            'trouble' => $expected ? Problem::words($failure) : 'An error inside Cellarium; its log says which.',
        ]);
        Record::write(
            $kind,
            "Backup of $site->domain not taken: $backup->trouble",
            $site,
            ['backup' => $backup->id],
            $backup->person,
        );
        if (! $expected) {
            throw $failure;
        }
    }
}
