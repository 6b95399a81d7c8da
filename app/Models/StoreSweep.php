<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** The outcome of one sweep of the store that moved, brought back or deleted something. */
final class StoreSweep extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = ['at' => 'immutable_datetime'];
}
