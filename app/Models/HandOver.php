<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Query\Builder as Rows;

/** A link that shows the settings of an FTP user a single time; what is stored here opens nothing without the link. */
final class HandOver extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $hidden = ['sealed', 'finder'];

    protected $attributes = [
        'opened_at' => null,
        'opened_by' => null,
        'opened_from' => null,
        'opened_with' => null,
        'withdrawn_at' => null,
    ];

    protected $casts = [
        'expires_at' => 'immutable_datetime',
        'opened_at' => 'immutable_datetime',
        'withdrawn_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<FtpUser, $this> */
    public function ftpUser(): BelongsTo
    {
        return $this->belongsTo(FtpUser::class);
    }

    public function waits(): bool
    {
        return $this->sealed !== null && $this->expires_at->isFuture();
    }

    public function words(): string
    {
        return match (true) {
            $this->opened_at !== null => "opened {$this->opened_at->shown(
                'j M H:i',
            )} by $this->opened_by, from $this->opened_from",
            $this->withdrawn_at !== null => "withdrawn {$this->withdrawn_at->shown('j M H:i')}, never opened",
            $this->waits() => "not opened yet; works until {$this->expires_at->shown('j M H:i')}",
            default => "ran out {$this->expires_at->shown('j M H:i')}, never opened",
        };
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn(
            'hand_overs.ftp_user_id',
            static fn (Rows $rows) => $rows
                ->select('id')
                ->from('ftp_users')
                ->whereIn('account_id', self::accountsOf($client)),
        );
    }
}
