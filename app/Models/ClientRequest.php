<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A request of a client's person to the agency; a concern on Today until it is answered. */
final class ClientRequest extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $casts = ['kind' => ClientRequestKind::class, 'answered_at' => 'immutable_datetime'];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class)->withTrashed();
    }

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @return BelongsTo<Person, $this> */
    public function answeredBy(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'answered_by');
    }

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->where('client_requests.client_id', $client);
    }
}
