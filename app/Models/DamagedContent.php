<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/** Contents whose stored copy has other bytes than it had, what holds them, and what came of mending them. */
final class DamagedContent extends Model
{
    protected $guarded = ['id'];

    protected $casts = ['held_in' => 'array', 'mended_at' => 'immutable_datetime'];

    /** @return Builder<self> */
    public static function open(): Builder
    {
        return self::whereNull('mended_at');
    }

    /** What it is in, in a few words: "index.html in backup 12 of saltmarshferries.example and in 3 more". */
    public function where(): string
    {
        $first = $this->held_in[0] ?? null;
        if ($first === null) {
            return 'in nothing that is kept';
        }
        $more = count($this->held_in) - 1;

        return "{$first['path']} in {$first['what']}".($more === 0 ? '' : " and in $more more");
    }
}
