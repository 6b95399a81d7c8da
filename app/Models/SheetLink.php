<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Words\Count;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A link that opens a sheet without signing in, for a time; what is stored here opens nothing without the link. */
final class SheetLink extends Model
{
    protected $guarded = ['id'];

    protected $hidden = ['finder'];

    protected $casts = [
        'expires_at' => 'immutable_datetime',
        'opened_at' => 'immutable_datetime',
        'withdrawn_at' => 'immutable_datetime',
        'opened' => 'integer',
    ];

    /** @return BelongsTo<Sheet, $this> */
    public function sheet(): BelongsTo
    {
        return $this->belongsTo(Sheet::class);
    }

    public function works(): bool
    {
        return $this->withdrawn_at === null && $this->expires_at->isFuture();
    }

    public function words(): string
    {
        return match (true) {
            $this->withdrawn_at !== null => "withdrawn {$this->withdrawn_at->shown('j M H:i')}",
            $this->works() => "works until {$this->expires_at->shown('j M Y H:i')}",
            default => "ran out {$this->expires_at->shown('j M Y H:i')}",
        };
    }

    public function use(): string
    {
        return $this->opened_at === null
            ? 'never opened'
            : Count::choose($this->opened, 'opened once', "opened $this->opened times")
                .", last {$this->opened_at->shown('j M H:i')} from $this->opened_from";
    }
}
