<?php

declare(strict_types=1);

namespace App\Watch;

use App\Backups\Expiry;
use App\Backups\StoreFigures;
use App\Backups\WitnessesAccepted;
use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Models\DamagedContent;
use App\Models\Package;
use App\Models\RecordKind;
use App\Models\StoreDay;
use App\Models\StoreRound;
use App\Models\StoreSweep;
use App\Record\Record;
use App\Storage\Installation;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Storage\CheckedContents;
use Cellarium\Core\Storage\ContentCheck;
use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\SealedContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreSettings;

/**
 * Reads contents back, so many a night that everything has been read within the days that are set, and tells damage.
 */
final readonly class StoreChecks
{
    /** Of one damaged file, so many places that hold it are named. */
    private const MOST_NAMED = 50;

    /** So many missing contents are looked into one by one. */
    private const MOST_MISSING = 200;

    public function __construct(
        private StoreSettings $settings,
        private SealedContentStore $store,
        private BackupShelf $shelf,
        private Mender $mender,
        private References $references,
    ) {
    }

    /**
     * What is due tonight, and mends what is found damaged, or was before.
     *
     * @param  bool  $all  read everything now, in a round of its own
     */
    public function carryOut(bool $all = false): CheckedContents
    {
        Installation::mustBeOurs($this->settings->objects());
        $round = $this->round($all);
        $checked = (new ContentCheck($this->store, $this->settings->objects()))->read(
            (string) $round->next,
            $all ? 1.0 : $round->share(),
        );
        $this->checkLists();
        $missing = $this->missing();
        $this->tell([...$checked->damaged, ...$missing]);
        $round->update([
            'next' => $checked->next,
            'files' => $round->files + $checked->files,
            'bytes' => $round->bytes + $checked->bytes,
            'sealed_anew' => $round->sealed_anew + $checked->sealedAnew,
            'ended_at' => $checked->next === null ? now() : null,
        ]);
        foreach (DamagedContent::open()->get() as $damaged) {
            $this->mender->mend($damaged);
        }
        $before = StoreDay::orderByDesc('day')->first();
        $this->compare($before, StoreFigures::note($this->settings), $round->refresh(), $missing !== []);

        return $checked;
    }

    /** Each is small beside what it lists, so that all are read each night. */
    private function checkLists(): void
    {
        foreach (Expiry::held()->with('site')->lazyById(200) as $backup) {
            $this->shelf->setAsideDamaged((string) $backup->name) && WitnessesAccepted::isNone(
                $backup,
                StoreFailure::damagedList((string) $backup->name)->getMessage(),
            );
        }
    }

    /** Reading nothing, or less than there was, must not look like a quiet night. */
    private function compare(?StoreDay $before, StoreDay $now, StoreRound $round, bool $lacksSomething): void
    {
        $isAnythingHeld = Expiry::held()->where('files', '>', 0)->exists()
            || Package::kept()->where('files', '>', 0)->exists();
        $isEmpty = $now->files === 0 || ($round->ended_at !== null && $round->files === 0);
        $isAnythingHeld && $isEmpty
            ? Alarm::raise(
                AlarmKind::NothingRead,
                'Everything was to be read back, and there was nothing to read, though backups and packages are held. '
                    ."Mount the disk of {$this->settings->directory}, or see that the store over S3 is the right one.",
            )
            : Alarm::end(AlarmKind::NothingRead);
        if ($before?->counted_at === null) {
            return;
        }
        $gone = StoreSweep::where('at', '>=', $before->counted_at);
        $explained = (int) $gone->sum('aside_files') - (int) $gone->sum('back_files');
        $fell = $before->files - $now->files - max(0, $explained);
        if ($fell <= 0) {
            $lacksSomething || Alarm::end(AlarmKind::CountFell);

            return;
        }
        Alarm::raise(
            AlarmKind::CountFell,
            "The store held $before->files contents on {$before->counted_at->format('j M H:i')} and holds $now->files "
                .'now; '
                .($explained > 0 ? "$explained were moved aside since, $fell" : "$fell").' are gone without a removal. '
                .($lacksSomething
                    ? 'Backups and packages lack some of them: they are named below, and fetched again from live sites '
                        .'that still have them.'
                    : 'No backup and no package lacks any of them.'),
        );
    }

    /**
     * What is referred to and is not there at all, which reading back cannot meet.
     *
     * @return list<string> the first of them; where there are very many, the alarms tell of all
     */
    private function missing(): array
    {
        $missing = [];
        $sweep = new ContentSweep($this->settings->objects(), $this->settings->work());
        foreach ($sweep->missing($this->references->all()) as $sha256) {
            $missing[] = $sha256;
            if (count($missing) >= self::MOST_MISSING) {
                break;
            }
        }

        return $missing;
    }

    private function round(bool $all): StoreRound
    {
        $open = StoreRound::whereNull('ended_at')->latest('id')->first();
        if ($open !== null && ! $all) {
            return $open;
        }

        return StoreRound::create(['days' => $all ? 1 : max(1, (int) config('cellarium.verify_days'))]);
    }

    /** @param  list<string>  $hashes */
    private function tell(array $hashes): void
    {
        $touches = $hashes === [] ? [] : $this->touched(array_fill_keys($hashes, true));
        foreach ($hashes as $sha256) {
            $damaged = DamagedContent::updateOrCreate(
                ['sha256' => $sha256],
                ['held_in' => $touches[$sha256] ?? [], 'mended_at' => null, 'mended_from' => null],
            );
            Record::write(
                RecordKind::ContentsDamaged,
                "A stored file is gone, or has other bytes than it had when it was kept: {$damaged->where()}",
                null,
                ['sha256' => $sha256],
            );
        }
    }

    /**
     * @param  array<string, true>  $hashes
     * @return array<string, list<array{what: string, path: string, site: int|null}>>
     */
    private function touched(array $hashes): array
    {
        $touches = [];
        $take = static function (Manifest $manifest, string $what, ?int $site) use ($hashes, &$touches): void {
            foreach ($manifest->files() as $file) {
                $sha256 = (string) $file->sha256;
                if (isset($hashes[$sha256]) && count($touches[$sha256] ?? []) < self::MOST_NAMED) {
                    $touches[$sha256][] = ['what' => $what, 'path' => $file->path->toString(), 'site' => $site];
                }
            }
        };
        // A list that cannot be read is told elsewhere, and holds nothing up here.
        $read = static function (\Closure $take): void {
            try {
                $take();
            } catch (StoreFailure|\UnexpectedValueException|\LogicException) {
                return;
            }
        };
        foreach (Expiry::held()->with('site')->latest('id')->lazy(100) as $backup) {
            $read(fn () => $take(
                $this->shelf->manifest((string) $backup->name),
                "the backup of {$backup->site->domain} of ".$backup->verified_at?->shown('j M Y H:i'),
                $backup->site_id,
            ));
        }
        foreach (Package::kept()->lazyById(20) as $package) {
            $read(static fn () => $take($package->contents(), "the package {$package->title()}", null));
        }

        return $touches;
    }
}
