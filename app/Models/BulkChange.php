<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** One change to many FTP users, with what became of each. */
final class BulkChange extends Model
{
    public const DRAFT = 'draft';

    public const GOING = 'going';

    public const DONE = 'done';

    protected $guarded = ['id'];

    protected $casts = ['items' => 'array', 'closes_at' => 'immutable_datetime'];
}
