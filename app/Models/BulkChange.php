<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/** One change to many FTP users, with what became of each. */
final class BulkChange extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $casts = [
        'kind' => BulkKind::class,
        'state' => BulkChangeState::class,
        'items' => 'array',
        'closes_at' => 'immutable_datetime',
    ];

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereRaw('1 = 0'); // It is about many clients at once.
    }
}
