<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * The way on for rows that were in hand when their worker was ended from outside; tagged with this name.
 *
 * Whoever has one in hand holds its locks: what is marked as in hand and is locked by nobody is orphaned, at once and
 * whatever the clock says.
 *
 * @template TRow of Model
 */
interface RecoversOrphans
{
    /** @return Builder<TRow> those that are marked as in hand */
    public function inHand(): Builder;

    /**
     * @param  TRow  $row
     * @return list<string> names of the locks that whoever has it in hand holds
     */
    public function locks(Model $row): array;

    /**
     * Has it done again from where it was broken off, or says how it ended; called while nobody else holds its locks.
     *
     * @param  TRow  $row
     * @return bool whether it was still as inHand() found it; else nothing was done
     */
    public function settle(Model $row): bool;
}
