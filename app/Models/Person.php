<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\People\Permission;
use Cellarium\Core\People\Role;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;

/** Somebody who signs in to Cellarium. */
final class Person extends User
{
    protected $table = 'people';

    /** @var array<int, list<int>> by client */
    private array $sitesOf = [];

    /** @var array<int, list<int>> by client */
    private array $accountsOf = [];

    protected $guarded = ['id'];

    protected $hidden = ['password', 'second_factor', 'recovery_codes'];

    /** There is no "remember me": a session ends when nobody uses it. */
    protected $rememberTokenName = '';

    protected $attributes = [
        'client_id' => null,
        'password' => null,
        'may_fetch_backups' => false,
        'second_factor' => null,
        'second_factor_step' => 0,
        'recovery_codes' => '[]',
        'closed_at' => null,
        'seen_at' => null,
        'settings' => '{}',
        'revision' => 0,
    ];

    protected $casts = [
        'password' => 'hashed',
        'role' => Role::class,
        'may_fetch_backups' => 'boolean',
        'second_factor' => 'encrypted',
        'second_factor_step' => 'integer',
        'recovery_codes' => 'array',
        'closed_at' => 'immutable_datetime',
        'seen_at' => 'immutable_datetime',
        'settings' => OwnSettingsCast::class,
        'revision' => 'integer',
    ];

    /**
     * The client beyond whom nothing exists for whoever is signed in; null for the agency's people and for what
     * Cellarium does of its own accord.
     */
    public static function clientOfViewer(): ?int
    {
        $viewer = Auth::user();

        // A client's person without a client sees nothing at all.
        return $viewer instanceof self && $viewer->role === Role::ClientsPerson ? $viewer->client_id ?? 0 : null;
    }

    /** Whoever is signed in here, or acts on the console; null for what Cellarium does of its own accord. */
    public static function viewer(): ?self
    {
        $viewer = Auth::user();

        return $viewer instanceof self ? $viewer : null;
    }

    /**
     * The numbers of the sites of a client: a site is its own client's where it has one, and its account's otherwise.
     * Kept for as long as somebody is signed in here, which is one request.
     *
     * @return list<int>
     */
    public function sitesOf(int $client): array
    {
        return $this->sitesOf[$client] ??= array_map(
            intval(...),
            DB::table('sites')
                ->whereNull('removed_at')
                ->where('client_id', $client)
                ->select('id')
                ->unionAll(
                    DB::table('sites')
                        ->whereNull('removed_at')
                        ->whereNull('client_id')
                        ->whereIn('account_id', DB::table('accounts')->select('id')->where('client_id', $client))
                        ->select('id'),
                )
                ->pluck('id')
                ->all(),
        );
    }

    /** @return list<int> the numbers of the accounts in which a client has something */
    public function accountsOf(int $client): array
    {
        return $this->accountsOf[$client] ??= array_map(
            intval(...),
            DB::table('accounts')
                ->whereNull('removed_at')
                ->where('client_id', $client)
                ->select('id')
                ->union(DB::table('sites')->whereIn('id', $this->sitesOf($client))->select('account_id'))
                ->pluck('id')
                ->all(),
        );
    }

    public function may(Permission $permission): bool
    {
        return $this->role->may($permission)
            || ($permission === Permission::FetchBackups && $this->may_fetch_backups);
    }

    public function isClosed(): bool
    {
        return $this->closed_at !== null;
    }

    /** Whether they may not come in: closed, or of a client that the agency no longer looks after. */
    public function isKeptOut(): bool
    {
        $client = $this->client_id === null ? null : Client::withoutGlobalScopes()->find($this->client_id);

        return $this->isClosed() || ($this->client_id !== null && $client?->isRemoved() !== false);
    }

    public function hasSecondFactor(): bool
    {
        return $this->second_factor !== null;
    }

    /** Nobody signs in before a password was chosen by the link of the invitation. */
    public function isInvited(): bool
    {
        return $this->password === null;
    }

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class)->withTrashed();
    }

    /** @return HasMany<OneTimeLink, $this> */
    public function links(): HasMany
    {
        return $this->hasMany(OneTimeLink::class);
    }

    /** @param  Builder<self>  $query */
    public function scopeOpen(Builder $query): void
    {
        $query->whereNull('closed_at');
    }

    public function shortName(): string
    {
        $parts = explode(' ', $this->name);

        return count($parts) < 2 ? $this->name : mb_substr($parts[0], 0, 1).'. '.end($parts);
    }
}
