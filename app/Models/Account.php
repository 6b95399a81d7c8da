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

    protected $attributes = ['tags' => '[]', 'label' => '', 'active_mode' => false];

    protected $hidden = ['secret', 'control_token', 'private_key', 'next_secret'];

    protected $casts = [
        'protocol' => Protocol::class,
        'secret' => 'encrypted',
        'control_token' => 'encrypted',
        'private_key' => 'encrypted',
        'next_secret' => 'encrypted',
        'pin' => 'array',
        'tags' => 'array',
        'features' => 'array',
        'active_mode' => 'boolean',
        'climbing_at' => 'immutable_datetime',
        'used_at' => 'immutable_datetime',
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

    /** Whether the last attempt to connect did not get to the top. */
    public function doesNotConnect(): bool
    {
        return $this->trouble !== null;
    }

    /** Whether somebody waits for a ladder that is climbed just now; one that was cut off long ago counts as not. */
    public function isClimbing(): bool
    {
        return $this->climbing_at !== null && $this->climbing_at->isAfter(now()->subMinutes(3));
    }

    /** Whether the last ladder was left half way by a worker that ended without warning. */
    public function wasCutOff(): bool
    {
        return $this->climbing_at !== null && ! $this->isClimbing();
    }

    /** What people call it. */
    public function title(): string
    {
        return $this->label === '' ? $this->host : $this->label;
    }

    /** The address visitors use for a place in this account, by the first of its sites that shows it; null where none does. */
    public function addressOf(RemotePath $place): ?string
    {
        foreach ($this->sites as $site) {
            $address = $site->addresses()->of($place);
            if ($address !== null) {
                return $address;
            }
        }

        return null;
    }

    /** @return array<string, RemotePath> by domain */
    public function documentRoots(): array
    {
        return $this->sites->mapWithKeys(static fn (Site $site): array => [$site->domain => $site->root()])->all();
    }
}
