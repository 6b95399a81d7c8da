<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** A backup of Cellarium itself that lies where the settings say. */
final class OwnBackup extends Model
{
    protected $guarded = ['id'];

    protected $casts = ['taken_at' => 'immutable_datetime', 'rehearsed_at' => 'immutable_datetime'];
}
