<?php

declare(strict_types=1);

namespace App\Models;

use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\SoftDeletes;

/**
 * A model that can be removed from Cellarium and brought back within its time. Its history stays: what belongs to it
 * finds it still, lists do not.
 *
 * @property CarbonImmutable|null $removed_at
 */
trait Removable
{
    use SoftDeletes;

    public function getDeletedAtColumn(): string
    {
        return 'removed_at';
    }

    public function isRemoved(): bool
    {
        return $this->trashed();
    }
}
