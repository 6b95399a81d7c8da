<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** An address of a site that answers everybody and should not; it goes once it was asked and answers no longer. */
final class OpenAddress extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    protected $casts = ['kind' => OpenAddressKind::class, 'asked_at' => 'immutable_datetime'];

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @return BelongsTo<Deployment, $this> that brought it */
    public function deployment(): BelongsTo
    {
        return $this->belongsTo(Deployment::class);
    }

    /** What it is and what would close it, in sentences. */
    public function words(): string
    {
        return match ($this->kind) {
            OpenAddressKind::File => 'Everybody gets a file there that is not meant for visitors. Take it out of the '
                .'document root, or have the web server refuse it (Require all denied, in .htaccess).',
            OpenAddressKind::Setup => 'Whoever comes first sets the system up, and it is theirs. Finish its setup now; '
                .'it goes from here once it answers no longer.',
        };
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('site_id', self::sitesOf($client));
    }
}
