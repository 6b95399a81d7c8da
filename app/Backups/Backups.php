<?php

declare(strict_types=1);

namespace App\Backups;

use App\Deployments\RunFiles;
use App\Hosting\Connections;
use App\Models\Backup;
use App\Problem;
use App\Record\Record;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Backup\ContentStore;
use Cellarium\Core\Backup\Surveyor;
use Cellarium\Core\Transfer\AccountLock;
use Cellarium\Core\Transfer\WorkerPool;
use Psr\Clock\ClockInterface;

/** Takes backups on demand, outside of deployments. */
final readonly class Backups
{
    public function __construct(
        private Connections $connections,
        private RunFiles $files,
        private ContentStore $store,
        private BackupShelf $shelf,
        private ClockInterface $clock,
    ) {
    }

    /** @return bool false when a run on the same account is going on */
    public function take(Backup $backup): bool
    {
        $backup->loadMissing('site.account.client');
        $site = $backup->site;
        $lock = AccountLock::tryFor($this->files->locks(), (string) $site->account_id);
        if ($lock === null) {
            return false;
        }
        $pool = new WorkerPool($this->connections->endpoint($site->account), (int) config('cellarium.lanes'), null, $lock->stream, $this->connections->slots);
        try {
            $listedAt = time();
            [$known, $at] = $this->files->known($site);
            $listed = (new Surveyor($pool))->survey($site->root())->manifest->withKnownHashes($known, $at - 60);
            $taken = (new BackupTaker($pool, $this->store, $this->shelf, $this->clock))->take($site->root(), $listed);
            $backup->update([
                'state' => Backup::VERIFIED, 'name' => $taken->name, 'files' => count($taken->manifest->files()), 'bytes' => $taken->manifest->bytes(),
                'fetched_files' => $taken->fetchedFiles, 'fetched_bytes' => $taken->fetchedBytes, 'verified_at' => now(),
            ]);
            $site->update(['bytes' => $taken->manifest->bytes()]);
            $this->files->keepKnown($site, $taken->manifest, $listedAt);
            Record::write('backup', "Backup of $site->domain taken and read back: $backup->files files", $site, ['backup' => $backup->id], $backup->person);
        } catch (\Throwable $failure) {
            $backup->update(['state' => Backup::FAILED, 'trouble' => Problem::isExpected($failure) ? Problem::words($failure) : 'An error inside Cellarium; its log says which.']);
            Record::write('backup_failed', "Backup of $site->domain failed: ".$backup->trouble, $site, [], $backup->person);
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
        } finally {
            $pool->close();
            $lock->release();
        }

        return true;
    }
}
