<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * The way on for rows that wait for a worker, or for another try, and that nobody thinks of any more: a worker was
 * ended between taking an order and beginning. Tagged with this name.
 *
 * @template TRow of Model
 */
interface RecoversForgotten
{
    /**
     * @param  \DateTimeInterface  $since  what was touched later is thought of
     * @return Builder<TRow>
     */
    public function forgotten(\DateTimeInterface $since): Builder;

    /**
     * Orders it, tries it, or gives it up in words, so that forgotten() finds it no more for a while; where orphans are
     * recovered too, called while nobody else holds its locks.
     *
     * @param  TRow  $row
     * @return bool whether something that a person waits for goes on
     */
    public function takeUp(Model $row): bool;
}
