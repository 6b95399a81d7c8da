<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Models\Backup;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Storage\Installation;
use App\Storage\RunFiles;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Storage\RecordEnd;
use Illuminate\Support\Facades\DB;

/**
 * Database and lists, each of which tells how many backups there are and which is the newest. What removes anything for
 * good asks both: a disk that is not mounted, and a database that is empty or of yesterday, must not look like nothing
 * to keep.
 *
 * A list is kept, then named by a row, then claimed; a row is let go of, then its list moved aside. What a kill leaves
 * between two of these is settled by look().
 */
final readonly class Witnesses
{
    private const MOST_NAMED = 5;

    /** Lists that no row names after this long, and no run that goes on, were left by a kill. */
    private const SECONDS_UNCLAIMED = 7 * 86400;

    /**
     * @param  int  $rows  backups that the database holds
     * @param  int  $lists  lists on the shelf
     * @param  list<string>  $missing  names of rows without a list
     * @param  list<string>  $unknown  names of lists without a row
     * @param  int|null  $ahead  the line of the record that was noted and that this database does not have; null where
     *     it
     *     goes on from there
     */
    private function __construct(
        public int $rows,
        public ?string $newestRow,
        public int $lists,
        public ?string $newestList,
        public array $missing,
        public array $unknown,
        public ?int $ahead,
    ) {
    }

    public static function look(): self
    {
        $shelf = app(BackupShelf::class);
        self::settle($shelf);
        $lists = $shelf->names();
        $rows = Expiry::held()->orderBy('name')->pluck('name')->all();
        $missing = array_values(array_filter(
            array_diff($rows, $lists),
            // It may have been claimed, or let go of, since the one was asked before the other.
            static fn (string $name): bool => $shelf->keptAt($name) === null
                && Expiry::held()->where('name', $name)->exists(),
        ));
        $unknown = array_diff($lists, $rows);
        $named = Backup::whereNotNull('name')
            ->when(count($unknown) < 1000, static fn ($query) => $query->whereIn('name', $unknown))
            ->pluck('name')
            ->all();
        $unknown = array_values(array_filter(
            array_diff($unknown, $named),
            static fn (string $name): bool => $shelf->keptAt($name) !== null,
        ));

        return new self(
            count($rows),
            $rows === [] ? null : max($rows),
            count($lists),
            $lists === [] ? null : max($lists),
            $missing,
            $unknown,
            self::ahead(),
        );
    }

    public function agree(): bool
    {
        return $this->missing === [] && $this->unknown === [] && $this->ahead === null;
    }

    /** What each says, which of them is short, and what to do. */
    public function words(): string
    {
        $newest = static fn (?string $name): string => $name === null ? '' : ", the newest $name";
        $said = "The database knows $this->rows backups{$newest($this->newestRow)}; "
            ."$this->lists lists of backups lie in {$this->directory()}{$newest($this->newestList)}.";
        $some = static fn (array $names): string => implode(', ', array_slice($names, 0, self::MOST_NAMED))
            .(count($names) > self::MOST_NAMED ? ' and '.(count($names) - self::MOST_NAMED).' more' : '');
        $faults = array_filter([
            $this->missing === [] ? '' : 'Lists are missing: '.$some($this->missing)
                .'. Mount the disk they lie on, or bring them back from a backup of Cellarium itself.',
            $this->unknown === [] ? '' : 'The database does not know the lists '.$some($this->unknown)
                .'. Bring back the database they belong to.',
            $this->ahead === null ? '' : "The record had come to line $this->ahead, which this database does not have: "
                .'it is an earlier one, or another. Bring back the one that was.',
        ]);

        return $this->agree() ? $said : $said.' '.implode(' ', $faults).' Nothing was removed. Where what is missing '
            .'is lost for good, say so with php artisan cellarium:witnesses --accept';
    }

    /** @throws Problem where they do not agree; Today tells it too */
    public static function mustAgree(): void
    {
        Installation::check();
        $witnesses = self::look();
        if (! $witnesses->agree()) {
            Alarm::raise(AlarmKind::Witnesses, $witnesses->words());
            throw new Problem($witnesses->words());
        }
        Alarm::end(AlarmKind::Witnesses);
    }

    private static function directory(): string
    {
        return config('cellarium.var').'/backups';
    }

    private static function settle(BackupShelf $shelf): void
    {
        $unclaimed = $shelf->unclaimed();
        if ($unclaimed === []) {
            return;
        }
        foreach (Backup::whereIn('name', $unclaimed)->pluck('name') as $named) {
            $shelf->claim((string) $named);
        }
        $files = app(RunFiles::class);
        $going = Deployment::whereIn('state', DeploymentState::OPEN)
            ->get()
            ->map(static fn (Deployment $run): ?string => $files->journal($run)->kept('backup'))
            ->all();
        foreach (array_diff($shelf->unclaimed(), $going) as $name) {
            if (($shelf->keptAt($name) ?? time()) < time() - self::SECONDS_UNCLAIMED) {
                $shelf->moveAside($name);
            }
        }
    }

    private static function ahead(): ?int
    {
        $noted = RecordEnd::in(self::directory());
        if ($noted === null || $noted->number === 0) {
            return null;
        }
        $seal = DB::table('record_entries')->where('number', $noted->number)->value('seal');

        return $seal === $noted->seal ? null : $noted->number;
    }
}
