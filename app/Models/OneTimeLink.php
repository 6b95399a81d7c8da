<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A link by which somebody chooses their password, a single time; what is stored here opens nothing. */
final class OneTimeLink extends Model
{
    protected $guarded = ['id'];

    protected $hidden = ['hash'];

    protected $casts = ['expires_at' => 'immutable_datetime', 'used_at' => 'immutable_datetime'];

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    public function waits(): bool
    {
        return $this->used_at === null && $this->expires_at->isFuture();
    }
}
