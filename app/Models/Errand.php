<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One thing that a page has asked a server for; its kind names the ErrandTask, and what was given is encrypted. */
final class Errand extends Model
{
    use OfClients;
    use OfPerson;

    protected $guarded = ['id'];

    protected $hidden = ['given', 'result'];

    protected $casts = [
        'state' => ErrandState::class,
        'given' => 'encrypted:array',
        'result' => 'encrypted:array',
        'started_at' => 'immutable_datetime',
    ];

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

    /** @return BelongsTo<FtpUser, $this> */
    public function ftpUser(): BelongsTo
    {
        return $this->belongsTo(FtpUser::class);
    }

    /** Whose answers it waits for; null where it asks no single host. */
    public function host(): ?string
    {
        return ($this->site->account ?? $this->ftpUser->account ?? $this->account)?->host;
    }

    /** @return BelongsTo<Person, $this> who asked for it */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('errands.account_id', self::accountsOf($client));
    }
}
