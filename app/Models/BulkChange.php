<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** One change to many FTP users, with what became of each. */
final class BulkChange extends Model
{
    protected $guarded = ['id'];

    protected $casts = [
        'kind' => BulkKind::class,
        'state' => BulkChangeState::class,
        'items' => 'array',
        'closes_at' => 'immutable_datetime',
    ];
}
