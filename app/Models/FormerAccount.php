<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** An account that a site was in before, its directory there, and until when. */
final class FormerAccount extends Model
{
    public $timestamps = false;

    protected $table = 'site_stays';

    protected $guarded = ['id'];

    protected $casts = ['until' => 'immutable_datetime'];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class)->withTrashed();
    }
}
