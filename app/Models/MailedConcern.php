<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A concern that somebody was told of by e-mail; the concern by a hash of what it is about. */
final class MailedConcern extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];
}
