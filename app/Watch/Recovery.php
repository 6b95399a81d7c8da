<?php

declare(strict_types=1);

namespace App\Watch;

use App\Failure\Problem;
use App\Work\FairQueue;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use Cellarium\Core\Storage\Locks;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\DB;

/**
 * Takes up what was broken off when a worker ended without warning, of every kind that says how.
 *
 * What is in hand is locked by the process that has it in hand; so what is marked as begun and has no lock is orphaned,
 * at once and whatever the clock says. Workers look between their jobs, see soon().
 */
final readonly class Recovery
{
    /** After this long, what should have been begun by a job that is waiting counts as forgotten. */
    private const STALE_SECONDS = 45;

    /** Transfer workers of a killed run end by themselves within this time. */
    private const ORPHAN_SECONDS = 15;

    private const SECONDS_BETWEEN_LOOKS = 2.0;

    /**
     * @param  iterable<RecoversOrphans<Model>>  $orphans
     * @param  iterable<RecoversForgotten<Model>>  $forgotten
     */
    public function __construct(private Locks $locks, private iterable $orphans, private iterable $forgotten)
    {
    }

    /** Called by each worker between its jobs: takes up what was orphaned, one of them every two seconds. */
    public function soon(): void
    {
        $looked = config('cellarium.var').'/locks/looked-for-orphans';
        clearstatcache(true, $looked);
        $ago = microtime(true) - (float) @filemtime($looked);
        // A clock that was put back does not keep it from looking.
        if ($ago >= self::SECONDS_BETWEEN_LOOKS || $ago < 0) {
            @touch($looked);
            $this->takeUpOrphans(0);
        }
    }

    /**
     * @param  bool  $starting  no worker runs yet, so whatever is marked as in hand is not
     * @return int how many rows were taken up
     */
    public function takeUp(bool $starting = false): int
    {
        if ($starting) {
            DB::table('jobs')->whereNotNull('reserved_at')->delete();
        }

        // Before: what is ordered again now is not forgotten.
        $since = now()->subSeconds($starting ? 0 : self::STALE_SECONDS);

        $orphans = $this->takeUpOrphans($starting ? self::ORPHAN_SECONDS : 0);

        return count($this->takeUpForgotten($since, $orphans));
    }

    /**
     * @param  int  $patience  seconds to wait for what still holds a lock
     * @return array<string, true> names of the rows that were taken up
     */
    private function takeUpOrphans(int $patience): array
    {
        $this->letGoOfJobs($patience);
        $taken = [];
        foreach ($this->orphans as $kind) {
            foreach ($kind->inHand()->orderBy('id')->get() as $row) {
                $isTaken = self::onItsOwn(fn (): bool => $this->ifFree(
                    $kind->locks($row),
                    $patience,
                    static fn (): bool => $kind->settle($row),
                ));
                $taken += $isTaken ? [self::nameOf($row) => true] : [];
            }
        }

        return $taken;
    }

    /** Jobs in the hands of workers that are no more: what they were about is taken up by what it is. */
    private function letGoOfJobs(int $patience): void
    {
        $workers = DB::table('jobs')->whereNotNull('reserved_by')->distinct()->pluck('reserved_by');
        foreach ($workers as $worker) {
            $this->ifFree(
                [FairQueue::lockName($worker)],
                $patience,
                static fn (): bool => DB::table('jobs')->where('reserved_by', $worker)->delete() > 0,
            );
        }
    }

    /**
     * @param  array<string, true>  $taken  up already, within the same second as it may be
     * @return array<string, true> with those that were taken up now
     */
    private function takeUpForgotten(\DateTimeInterface $since, array $taken): array
    {
        foreach ($this->forgotten as $kind) {
            foreach ($kind->forgotten($since)->orderBy('id')->get() as $row) {
                $isTaken = ! isset($taken[self::nameOf($row)]) && self::onItsOwn(fn (): bool => $this->ifFree(
                    $kind instanceof RecoversOrphans ? $kind->locks($row) : [],
                    0,
                    static fn (): bool => self::tryTakingUp($kind, $row),
                ));
                $taken += $isTaken ? [self::nameOf($row) => true] : [];
            }
        }

        return $taken;
    }

    private static function nameOf(Model $row): string
    {
        return $row::class." {$row->getKey()}";
    }

    /**
     * What cannot be taken up, for whatever reason, keeps nothing else from it; the log tells.
     *
     * @param  \Closure(): bool  $work
     */
    private static function onItsOwn(\Closure $work): bool
    {
        return (bool) rescue($work, false);
    }

    /** @param  RecoversForgotten<Model>  $kind */
    private static function tryTakingUp(RecoversForgotten $kind, Model $row): bool
    {
        try {
            return $kind->takeUp($row);
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            $row->touch();
            logger()->warning(class_basename($kind)." {$row->getKey()}, tried again later: {$failure->getMessage()}");

            return false;
        }
    }

    /**
     * @param  list<string>  $names
     * @param  \Closure(): bool  $work
     */
    private function ifFree(array $names, int $patience, \Closure $work): bool
    {
        $until = hrtime(true) / 1e9 + $patience;
        while (($lock = $this->locks->acquire(...$names)) === null && hrtime(true) / 1e9 < $until) {
            usleep(50_000);
        }
        if ($lock === null) {
            return false;
        }
        try {
            return $work();
        } finally {
            $lock->release();
        }
    }
}
