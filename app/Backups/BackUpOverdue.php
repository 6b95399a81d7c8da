<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use App\Work\Tasks;
use Cellarium\Core\Work\Urgency;

/**
 * Backs up every site that has no backup, or none within what it was promised; one that is being backed up is left out.
 */
final class BackUpOverdue
{
    /** @return int how many were begun */
    public function begin(?Person $person): int
    {
        $taking = Backup::where('state', BackupState::Taking)->pluck('site_id');
        $begun = 0;
        Site::query()
            ->where(static fn ($query) => $query->whereNull('placeholder')->orWhere('placeholder', false))
            ->where(static fn ($query) => $query
                ->whereNull('last_backup_at')
                ->orWhere('backup_promised_at', '<', now()))
            ->whereNotIn('id', $taking)
            ->select('id')
            ->chunkById(200, static function ($sites) use ($person, &$begun): void {
                foreach ($sites as $site) {
                    $backup = Backup::create([
                        'site_id' => $site->id,
                        'person_id' => $person?->id,
                        'reason' => BackupReason::OnDemand,
                        'state' => BackupState::Taking,
                    ]);
                    Tasks::order(TakeBackup::class, $backup->id, urgency: Urgency::Backup);
                    $begun++;
                }
            });
        Record::write(
            RecordKind::BackupsStarted,
            "Backups of all sites that were overdue begun: $begun",
            person: $person,
        );

        return $begun;
    }
}
