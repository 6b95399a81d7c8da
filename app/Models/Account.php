<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Account\Protocol;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\MorphMany;

/** One hosting account; its secrets are encrypted with the application key. */
final class Account extends Model
{
    protected $guarded = ['id'];

    protected $hidden = ['secret', 'control_token'];

    protected $casts = [
        'protocol' => Protocol::class,
        'secret' => 'encrypted',
        'control_token' => 'encrypted',
        'tree' => 'array',
        'ladder' => 'array',
        'looked_at' => 'immutable_datetime',
        'reached_at' => 'immutable_datetime',
        'tried_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class);
    }

    /** @return HasMany<Site, $this> */
    public function sites(): HasMany
    {
        return $this->hasMany(Site::class);
    }

    /** @return HasMany<FtpUser, $this> */
    public function ftpUsers(): HasMany
    {
        return $this->hasMany(FtpUser::class);
    }

    /** @return MorphMany<Proof, $this> */
    public function proofs(): MorphMany
    {
        return $this->morphMany(Proof::class, 'subject');
    }

    /** @return array<string, RemotePath> by domain */
    public function documentRoots(): array
    {
        return $this->sites->mapWithKeys(static fn (Site $site): array => [$site->domain => $site->root()])->all();
    }
}
