<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Models\OwnBackup;
use App\Models\RecordKind;
use App\Record\Record;
use App\Record\RecordSeal;
use Cellarium\Core\Backup\HeldBackup;
use Cellarium\Core\Backup\Retention;
use Cellarium\Core\Backup\RetentionDecision;
use Cellarium\Core\Storage\ScratchFile;
use Illuminate\Support\Facades\DB;

/** Saves Cellarium itself each night, keeps so many, and brings the newest back beside the database each month. */
final readonly class OwnBackups
{
    private const DAILY = 7;

    private const WEEKLY = 4;

    private const REHEARSED_EVERY_DAYS = 30;

    private const CONNECTION = 'rehearsal';

    public function __construct(private SelfBackup $self)
    {
    }

    /** @throws Problem which stands on Today as well */
    public function nightly(): OwnBackup
    {
        try {
            $place = BackupPlace::named() ?? throw new Problem(
                'CELLARIUM_SELF_BACKUP_TO in .env names no place, so Cellarium itself is not saved.',
            );
            $passphrase = Passphrase::kept();
            $scratch = ScratchFile::create();
            unlink($scratch->path);
            $lists = $this->self->save($scratch->path, $passphrase->reveal());
            $name = 'cellarium-'.now()->utc()->format('Ymd-His').'.sealed';
            $place->put($name, $scratch->path);
            $saved = OwnBackup::create([
                'name' => $name,
                'bytes' => (int) filesize($scratch->path),
                'lists' => $lists,
                'taken_at' => now(),
            ]);
            $this->expire($place);
        } catch (\Throwable $failure) {
            Problem::isExpected($failure) && Alarm::raise(
                AlarmKind::SelfBackup,
                'Cellarium itself was not saved: '.Problem::words($failure),
            );
            throw $failure;
        }
        Alarm::end(AlarmKind::SelfBackup);

        return $saved;
    }

    /** Whether the last rehearsal was long enough ago. */
    public function isRehearsalDue(): bool
    {
        $last = OwnBackup::max('rehearsed_at');

        return OwnBackup::exists()
            && ($last === null || now()->subDays(self::REHEARSED_EVERY_DAYS)->greaterThan($last));
    }

    /**
     * Brings the newest back into an empty database beside the one that is worked with, and looks whether all of it
     * came.
     *
     * @throws Problem which stands on Today as well
     */
    public function rehearse(): OwnBackup
    {
        $newest = OwnBackup::latest('id')->first() ?? throw new Problem(
            'Cellarium itself was never saved yet, so there is nothing to bring back.',
        );
        try {
            $found = $this->broughtBackBeside($newest);
            $newest->update(['rehearsed_at' => now(), 'rehearsal' => $found, 'rehearsal_trouble' => null]);
        } catch (\Throwable $failure) {
            if (Problem::isExpected($failure)) {
                $words = "$newest->name could not be brought back: ".Problem::words($failure);
                $newest->update(['rehearsed_at' => now(), 'rehearsal_trouble' => mb_substr($words, 0, 1000)]);
                Alarm::raise(AlarmKind::SelfRehearsal, $words);
            }
            throw $failure;
        }
        Alarm::end(AlarmKind::SelfRehearsal);
        Record::write(RecordKind::SelfRehearsed, "Cellarium's own backup $newest->name was brought back: $found");

        return $newest;
    }

    private function expire(BackupPlace $place): void
    {
        $retention = new Retention(
            0,
            self::DAILY,
            self::WEEKLY,
            0,
            0,
            new \DateTimeZone((string) config('app.timezone')),
        );
        $held = OwnBackup::all()->keyBy('id');
        $decisions = $retention->decide($held->map(
            static fn (OwnBackup $one): HeldBackup => new HeldBackup($one->id, $one->taken_at),
        )->values()->all());
        foreach (array_filter(
            $decisions,
            static fn (RetentionDecision $decision): bool => ! $decision->isKept(),
        ) as $decision) {
            $place->has($held[$decision->backup->id]->name) && $place->delete($held[$decision->backup->id]->name);
            $held[$decision->backup->id]->delete();
        }
    }

    /** @return string what was found, in a sentence */
    private function broughtBackBeside(OwnBackup $newest): string
    {
        $place = BackupPlace::named() ?? throw new Problem('CELLARIUM_SELF_BACKUP_TO in .env names no place any more.');
        $file = $place->fetch($newest->name);
        $opened = OpenedBackup::open($file->path, Passphrase::kept()->reveal());
        $user = DatabaseUser::ofRehearsals();
        $empty = static fn () => $user->run(
            [
                'mariadb',
                "--execute=DROP DATABASE IF EXISTS `$user->database`; CREATE DATABASE `$user->database`",
            ],
            [],
            'The database for rehearsals could not be emptied',
            false,
        );
        $empty();
        try {
            DatabaseDump::load($opened->pieces(OpenedBackup::DATABASE), $user);

            return $this->compared($user, $opened);
        } finally {
            DB::purge(self::CONNECTION);
            $empty();
        }
    }

    private function compared(DatabaseUser $user, OpenedBackup $opened): string
    {
        $settings = (array) config('database.connections.'.config('database.default'));
        config(['database.connections.'.self::CONNECTION => [
            'database' => $user->database,
            'username' => $user->name,
            'password' => config('cellarium.self_backup.database.password'),
        ] + $settings]);
        $there = DB::connection(self::CONNECTION);
        $lists = array_flip($opened->lists());
        $missing = $there->table('backups')
            ->where('state', 'verified')
            ->whereNotNull('name')
            ->pluck('name')
            ->reject(static fn (string $name): bool => isset($lists[$name]));
        $missing->isEmpty() || throw new Problem(
            "{$missing->count()} lists of backups are not in it, the first of them {$missing->first()}.",
        );
        $record = RecordSeal::verify(self::CONNECTION, $opened->appKey());
        $record['faults'] === [] || throw new Problem("The record does not hold there: {$record['faults'][0]}");
        $triggers = $there->select(
            'SELECT COUNT(*) AS number FROM information_schema.triggers WHERE trigger_schema = ?',
            [$user->database],
        )[0]->number;
        $triggers >= 2 || throw new Problem('What keeps the record from being changed is not in it.');

        return "{$there->table('clients')->count()} clients, {$there->table('sites')->count()} sites, "
            .count($lists)." lists of backups; {$record['lines']} lines of the record hold";
    }
}
