<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\People\Role;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One line of the record; written once, see App\Record\Record. */
final class RecordEntry extends Model
{
    use OfClients;

    public $timestamps = false;

    protected $guarded = ['id'];

    protected $hidden = ['seal'];

    protected $casts = [
        'action' => RecordKind::class,
        'role' => Role::class,
        'at' => 'immutable_datetime',
        'facts' => 'array',
    ];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class)->withTrashed();
    }

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class)->withTrashed();
    }

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->where('record_entries.client_id', $client);
    }
}
