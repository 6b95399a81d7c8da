<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** What a document root held at one moment. */
final class Backup extends Model
{
    public const TAKING = 'taking';

    public const VERIFIED = 'verified';

    public const FAILED = 'failed';

    protected $guarded = ['id'];

    protected $casts = ['verified_at' => 'immutable_datetime'];

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class);
    }

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }
}
