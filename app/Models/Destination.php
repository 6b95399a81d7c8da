<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A directory of a site that has a name, because it is needed again and again. */
final class Destination extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    public function path(): RemotePath
    {
        return RemotePath::fromString($this->directory);
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('destinations.site_id', self::sitesOf($client));
    }
}
