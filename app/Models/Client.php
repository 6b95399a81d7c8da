<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasManyThrough;

/** A customer of the agency. */
final class Client extends Model
{
    protected $guarded = ['id'];

    /** @return HasMany<Account, $this> */
    public function accounts(): HasMany
    {
        return $this->hasMany(Account::class);
    }

    /** @return HasManyThrough<Site, Account, $this> */
    public function sites(): HasManyThrough
    {
        return $this->hasManyThrough(Site::class, Account::class);
    }
}
