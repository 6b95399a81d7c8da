<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A file that a deployment or a change by hand took out of a site, held here so that it can be restored. */
final class SetAside extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $attributes = ['deployment_id' => null, 'change_id' => null];

    protected $casts = [
        'set_aside_at' => 'immutable_datetime',
        'held_until' => 'immutable_datetime',
        'restored_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @return BelongsTo<ChangeByHand, $this> that took it out, where no deployment did */
    public function change(): BelongsTo
    {
        return $this->belongsTo(ChangeByHand::class, 'change_id');
    }

    /** @return BelongsTo<Deployment, $this> that took it out, where no change by hand did */
    public function deployment(): BelongsTo
    {
        return $this->belongsTo(Deployment::class);
    }

    /**
     * @param  Builder<self>  $query
     * @return Builder<self>
     */
    public function scopeHeld(Builder $query): Builder
    {
        return $query->whereNull('restored_at')->where('held_until', '>', now());
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('site_id', self::sitesOf($client));
    }
}
