<?php

declare(strict_types=1);

namespace App\Watch;

use App\Backups\ClockWatch;
use App\Backups\Witnesses;
use App\Failure\Problem;
use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Errand;
use App\Models\FileDraft;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\StoreSweep;
use App\Packages\Uploads;
use App\Record\Record;
use App\Removal\Removal;
use App\Storage\Installation;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Storage\SweptContents;
use Cellarium\Core\Storage\TooMuchToSweep;
use Cellarium\Core\Storage\WorkInProgress;
use Illuminate\Support\Collection;

/**
 * Removes what nobody will ever ask for again: files on their way in that never arrived, contents and lists nothing
 * refers to. Those are moved aside, where they can come back for a week.
 *
 * Nothing at all is removed unless directories and store are this installation's own, and database and lists agree.
 */
final readonly class Cleaner
{
    /** What was touched within this time may still be on its way. */
    private const SECONDS_OF_GRACE = 86400;

    private const MOST_NAMED = 5;

    public function __construct(
        private BackupShelf $shelf,
        private References $references,
        private Removal $removal,
        private Uploads $uploads,
        private StoreSettings $store,
        private WorkInProgress $work,
    ) {
    }

    /**
     * @param  bool  $however  many contents would go: a person has said that they may
     *
     * @throws Problem|TooMuchToSweep with nothing removed that somebody may still need
     */
    public function clean(bool $however = false): CleanupResult
    {
        Installation::mustBeOurs($this->store->objects());
        Witnesses::mustAgree();
        ClockWatch::mustBeSteady();
        $before = time() - self::SECONDS_OF_GRACE;
        Errand::where('created_at', '<', now()->subSeconds(self::SECONDS_OF_GRACE))->delete();
        // Of files that nobody has open any more, and that nobody has changed.
        FileDraft::whereNull('text')->where('here_at', '<', now()->subSeconds(self::SECONDS_OF_GRACE))->delete();
        $this->removal->expire();
        $this->uploads->expire();
        [$files, $bytes] = $this->neverArrived($before);
        $this->unshelve();
        $this->shelf->deleteAside(time() - ContentSweep::SECONDS_ASIDE);
        $swept = $this->sweep(fn (ContentSweep $sweep): SweptContents => $sweep->sweep(
            $this->references->all(),
            $before,
            time(),
            $however,
        ));

        return $this->told(new CleanupResult($files, $bytes, $swept));
    }

    /**
     * Has done what a person asked for; the record says what came of it.
     *
     * @param  bool  $empties  what lies aside, instead of moving more there
     */
    public function cleanFor(Person $person, bool $empties): void
    {
        try {
            $said = $empties ? $this->emptyAside() : $this->clean(however: true);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            Record::write(RecordKind::Cleaned, 'Not cleared: '.Problem::words($failure), person: $person);

            return;
        }
        Record::write(RecordKind::Cleaned, "$person->name had the store cleared: {$said->words()}", person: $person);
    }

    /**
     * Deletes what lies aside before its week is over, for room.
     *
     * @throws Problem
     */
    public function emptyAside(): CleanupResult
    {
        Installation::mustBeOurs($this->store->objects());
        Witnesses::mustAgree();
        $this->shelf->deleteAside(PHP_INT_MAX);

        return $this->told(new CleanupResult(0, 0, $this->sweep(
            fn (ContentSweep $sweep): SweptContents => $sweep->emptyAside($this->references->all()),
        )));
    }

    /**
     * @param  list<string>  $names  of backups on the shelf
     * @return int bytes that would be freed without them, beside what nothing refers to already
     */
    public function freedWithout(array $names): int
    {
        if ($names === []) {
            return 0;
        }

        return (new ContentSweep($this->store->objects(), $this->work))->freedWithout(
            $this->references->only($names),
            $this->references->all($names),
        );
    }

    /** @param  \Closure(ContentSweep): SweptContents  $work */
    private function sweep(\Closure $work): SweptContents
    {
        try {
            $swept = $work(new ContentSweep($this->store->objects(), $this->work));
        } catch (TooMuchToSweep $much) {
            Alarm::raise(AlarmKind::Sweep, $much->getMessage());
            throw $much;
        } finally {
            $this->tellUnreadable();
        }
        Alarm::end(AlarmKind::Sweep);

        return $swept;
    }

    private function tellUnreadable(): void
    {
        $what = $this->references->unreadable;
        if ($what === []) {
            Alarm::end(AlarmKind::Unreadable);

            return;
        }
        $more = count($what) - self::MOST_NAMED;
        $words = 'Cannot be read: '.implode(', ', array_slice($what, 0, self::MOST_NAMED)).($more > 0 ? " and $more "
            .'more' : '')
            .'. What could still be made out in them stays; the others are cleared as ever. Take these anew, or bring '
            .'the lists back from a backup of Cellarium itself.';
        Alarm::raise(AlarmKind::Unreadable, $words) && logger()->warning($words);
    }

    private function told(CleanupResult $cleaned): CleanupResult
    {
        $swept = $cleaned->swept;
        $isSomething = $swept->asideFiles + $swept->backFiles + $swept->deletedFiles > 0;
        $isSomething && StoreSweep::create([
            'at' => now(),
            'aside_files' => $swept->asideFiles,
            'aside_bytes' => $swept->asideBytes,
            'back_files' => $swept->backFiles,
            'deleted_files' => $swept->deletedFiles,
            'freed_bytes' => $swept->freedBytes,
        ]);
        $cleaned->isNothing() || Record::write(RecordKind::Cleaned, $cleaned->words());

        return $cleaned;
    }

    /** @return array{int, int} files on their way in that never came to their end, and their bytes */
    private function neverArrived(int $before): array
    {
        $var = (string) config('cellarium.var');
        $files = 0;
        $bytes = 0;
        foreach (
            [
                "$var/contents/incoming/*",
                "$var/uploads/*",
                "$var/manifests/*.new",
                "$var/backups/*.new",
                "$var/runs/*/*.new",
                ...$this->uploads->orphans(),
            ] as $pattern
        ) {
            foreach (glob($pattern) ?: [] as $file) {
                $size = (int) @filesize($file);
                if (is_file($file) && (int) @filemtime($file) < $before && @unlink($file)) {
                    $files++;
                    $bytes += $size;
                }
            }
        }

        return [$files, $bytes];
    }

    /** Backups whose time is over leave the shelf; what they alone held goes with the sweep. */
    private function unshelve(): void
    {
        $expired = Backup::where('state', BackupState::Expired)->whereNotNull('name')->select(['id', 'name']);
        $expired->chunkById(500, function (Collection $some): void {
            foreach ($some as $backup) {
                $this->shelf->moveAside((string) $backup->name);
            }
            Backup::whereKey($some->modelKeys())->update(['name' => null]);
        });
    }
}
