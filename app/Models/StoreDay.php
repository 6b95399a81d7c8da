<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** The size of the store on one day. */
final class StoreDay extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = [
        'day' => 'immutable_date',
        'frees_at' => 'immutable_datetime',
        'counted_at' => 'immutable_datetime',
    ];
}
