<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Models\Backup;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Storage\RecordEnd;

/** A person has said that what database and lists do not agree on is as it is from here on. */
final readonly class WitnessesAccepted
{
    public function __construct(private BackupShelf $shelf)
    {
    }

    public function accept(Witnesses $witnesses): void
    {
        foreach ($witnesses->unknown as $name) {
            $this->shelf->moveAside($name);
        }
        foreach (Backup::with('site')->whereIn('name', $witnesses->missing)->get() as $backup) {
            self::isNone($backup, 'its list is lost, as a person has said');
        }
        // Writing this has the newest line noted anew.
        $witnesses->ahead === null || RecordEnd::forget(config('cellarium.var').'/backups');
        Record::write(
            RecordKind::WitnessesAccepted,
            'What database and lists do not agree on was accepted: '.count($witnesses->missing).' lists lost, '
                .count($witnesses->unknown).' that the database does not know set aside'
                .($witnesses->ahead === null ? '' : ", and a record that had come to line $witnesses->ahead"),
            facts: ['missing' => $witnesses->missing, 'unknown' => $witnesses->unknown],
        );
        Alarm::end(AlarmKind::Witnesses);
    }

    /** Such a backup stands for nothing any more, and what was promised of its site counts without it. */
    public static function isNone(Backup $backup, string $because): void
    {
        $backup->update(['state' => BackupState::Failed, 'trouble' => $because]);
        $last = Expiry::held()->where(['site_id' => $backup->site_id, 'root' => $backup->site->application_root]);
        Site::whereKey($backup->site_id)->update(['last_backup_at' => $last->max('verified_at')]);
        BackupRule::promise($backup->site_id);
        Record::write(
            RecordKind::ContentsDamaged,
            "Backup $backup->id of {$backup->site->domain} is no backup any more: $because",
            $backup->site,
            ['backup' => $backup->id],
        );
    }
}
