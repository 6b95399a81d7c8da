<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasManyThrough;

/** A customer of the agency. */
final class Client extends Model
{
    use OfClients;
    use Removable;

    protected $guarded = ['id'];

    protected $casts = ['removed_at' => 'immutable_datetime'];

    /** @return HasMany<Account, $this> */
    public function accounts(): HasMany
    {
        return $this->hasMany(Account::class);
    }

    private const COLOURS = [
        '#1c6b64',
        '#8a5a0b',
        '#44587a',
        '#9c3530',
        '#5b6b2f',
        '#6f5a44',
        '#7a4468',
        '#2f6b8a',
        '#a0522d',
        '#4b4f8a',
    ];

    /** The colour that the fewest clients have. */
    public static function nextColour(): string
    {
        $used = self::query()->selectRaw('colour, COUNT(*) AS times')->groupBy('colour')->pluck('times', 'colour');

        return collect(self::COLOURS)->sortBy(static fn (string $colour): int => (int) ($used[$colour] ?? 0))->first();
    }

    /** Two letters that stand for it beside its colour. */
    public function mark(): string
    {
        preg_match_all('/\b\p{L}/u', $this->name, $initials);
        $letters = implode('', $initials[0]);

        return mb_strtoupper(mb_substr(mb_strlen($letters) > 1 ? $letters : $this->name, 0, 2));
    }

    /** @return HasManyThrough<Site, Account, $this> */
    public function sites(): HasManyThrough
    {
        return $this->hasManyThrough(Site::class, Account::class);
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereKey($client);
    }
}
