<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/** One reading of everything that is stored, over several nights. */
final class StoreRound extends Model
{
    protected $guarded = ['id'];

    protected $attributes = [
        'next' => '',
        'files' => 0,
        'bytes' => 0,
        'sealed_anew' => 0,
    ];

    protected $casts = ['ended_at' => 'immutable_datetime'];

    /** How much of it should have been read by now, 0 to 1; the night that begins counts. */
    public function share(): float
    {
        $nights = (int) floor($this->created_at->diffInHours(now()) / 24) + 1;

        return min(1.0, $nights / max(1, $this->days));
    }
}
