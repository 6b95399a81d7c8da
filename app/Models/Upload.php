<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A file on its way in, in pieces; its bytes lie on the disk. Only who began it sees it. */
final class Upload extends Model
{
    use OfPerson;

    protected $guarded = ['id'];

    protected $attributes = ['into' => null];

    protected $casts = ['expires_at' => 'immutable_datetime', 'length' => 'integer'];
}
