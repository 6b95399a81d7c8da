<?php

declare(strict_types=1);

namespace App\Models;

use App\Text\When;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\SignInSettings;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\MeantReach;
use Cellarium\Core\Reach\Reach;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\MorphMany;

/**
 * A scoped login inside an account; open only once its reach is proven, closed only once its refusal is.
 *
 * What is to become of it is written into `pending` before anybody is asked for it, and stays there until a proof has
 * shown what did become of it; see App\FtpUsers\FtpUsers.
 */
final class FtpUser extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $hidden = ['secret', 'next_secret'];

    protected $attributes = [
        'purpose' => '',
        'read_only' => false,
        'ends' => Closing::AtTime,
        'ends_reason' => '',
        'forgets' => false,
        'pending' => null,
        'secret' => null,
        'secret_for' => null,
        'next_secret' => null,
        'person_id' => null,
        'space_limit' => null,
        'closes_at' => null,
        'reach_proven_at' => null,
        'closed_at' => null,
        'refusal_proven_at' => null,
        'handed_over_at' => null,
        'used_at' => null,
        'seen_use' => null,
        'tried_at' => null,
        'proving_at' => null,
        'found_at' => null,
        'probe' => null,
        'proof_failed_at' => null,
        'trouble' => null,
    ];

    protected $casts = [
        'state' => FtpUserState::class,
        'ends' => Closing::class,
        'secret' => 'encrypted',
        'next_secret' => 'encrypted',
        'pending' => PendingChangeCast::class,
        'probe' => 'array',
        'read_only' => 'boolean',
        'forgets' => 'boolean',
        'closes_at' => 'immutable_datetime',
        'reach_proven_at' => 'immutable_datetime',
        'closed_at' => 'immutable_datetime',
        'refusal_proven_at' => 'immutable_datetime',
        'handed_over_at' => 'immutable_datetime',
        'used_at' => 'immutable_datetime',
        'tried_at' => 'immutable_datetime',
        'proving_at' => 'immutable_datetime',
        'found_at' => 'immutable_datetime',
        'proof_failed_at' => 'immutable_datetime',
    ];

    protected static function booted(): void
    {
        self::saving(static function (self $user): void {
            if ($user->isDirty('secret') && $user->secret !== null) {
                $user->secret_for = Account::withTrashed()->findOrFail($user->account_id)->whereFtpSecretsGo();
            }
        });
    }

    /** Whether its password was given for another host, port or protocol than the account has for its FTP users now. */
    public function secretIsForElsewhere(): bool
    {
        return $this->secret_for !== null && ! hash_equals($this->secret_for, $this->account->whereFtpSecretsGo());
    }

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class)->withTrashed();
    }

    /** @return BelongsTo<Person, $this> who made it */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @return MorphMany<Proof, $this> */
    public function proofs(): MorphMany
    {
        return $this->morphMany(Proof::class, 'subject');
    }

    /** @return HasMany<HandOver, $this> */
    public function handOvers(): HasMany
    {
        return $this->hasMany(HandOver::class);
    }

    /** @return HasMany<Deployment, $this> those that sign in as it */
    public function deployments(): HasMany
    {
        return $this->hasMany(Deployment::class);
    }

    /** @param  Builder<self>  $query */
    public function scopeAlive(Builder $query): void
    {
        $query->whereNotIn('state', FtpUserState::ENDED)
            ->whereNotIn('account_id', Account::onlyTrashed()->select('id'));
    }

    /**
     * Those that were there at some time between two moments, as these are stored.
     *
     * @param  Builder<self>  $query
     */
    public function scopeOpenWithin(Builder $query, \DateTimeInterface $from, \DateTimeInterface $until): void
    {
        $query->where('created_at', '<=', $until)
            ->where(static fn ($query) => $query->whereNull('closed_at')->orWhere('closed_at', '>=', $from));
    }

    public function path(): RemotePath
    {
        return RemotePath::fromString($this->directory);
    }

    public function reach(): Reach
    {
        return Reach::fromDirectory($this->path(), $this->account->places());
    }

    /** What it is meant to be able to do, with what is wanted of it where that was asked for already. */
    public function meant(): MeantReach
    {
        $directory = $this->pending?->directory() ?? $this->path();
        $elsewhere = [];
        foreach ($this->account->places() as $site) {
            array_push(
                $elsewhere,
                ...array_filter(
                    $site->directories,
                    static fn (RemotePath $place): bool => ! $directory->contains($place)
                        && ! $place->contains($directory),
                ),
            );
        }

        return new MeantReach(
            $this->login,
            $directory,
            $this->read_only,
            $this->pending?->setsSpace() === true ? $this->pending->spaceLimit() : $this->space_limit,
            $elsewhere,
        );
    }

    /** What somebody needs to sign in as it; null where the password is not known here. */
    public function settings(): ?SignInSettings
    {
        return $this->secret === null
            ? null
            : new SignInSettings(
                $this->account->host,
                $this->account->ftpPort(),
                $this->account->ftpProtocol(),
                $this->login,
                new Secret($this->secret),
                $this->directory,
                $this->account->addressOf($this->path()),
            );
    }

    /** What is pending of it; null for nothing. */
    public function action(): ?PendingAction
    {
        return $this->pending?->action;
    }

    public function hasEnded(): bool
    {
        return $this->state->hasEnded();
    }

    public function isProven(): bool
    {
        return $this->reach_proven_at !== null && $this->proof_failed_at === null;
    }

    public function isOverdue(): bool
    {
        return ! $this->hasEnded() && $this->closes_at !== null && $this->closes_at->isPast();
    }

    /** Whether a worker was asked to prove it and has not ended; one that was asked long ago counts as not. */
    public function isBeingProven(): bool
    {
        return $this->proving_at !== null && $this->proving_at->isAfter(now()->subMinutes(3));
    }

    /** Whether its settings can be handed over: once, after it was made or its password renewed. */
    public function canBeHandedOver(): bool
    {
        return $this->state === FtpUserState::Open
            && $this->action() === null
            && $this->secret !== null
            && $this->handed_over_at === null;
    }

    /** Whole days since it was last used, or since it was made. */
    public function idleDays(): int
    {
        return (int) max(0, ($this->used_at ?? $this->created_at)->diffInDays(now()));
    }

    /** @return string when it closes, as commands say it: a time (RFC 3339), "job" or "never" */
    public function endsAs(): string
    {
        return $this->closes_at?->toIso8601String() ?? $this->ends->value;
    }

    public function endsWords(): string
    {
        return self::endsIn($this->ends, $this->ends_reason, $this->closes_at);
    }

    /** When one closes, in words, from what its row holds. */
    public static function endsIn(Closing $ends, string $reason, ?\DateTimeInterface $closes): string
    {
        return match ($ends) {
            Closing::WithJob => 'when its job ends',
            Closing::Never => 'never'.($reason === '' ? '' : ": $reason"),
            default => $closes === null ? 'by hand' : When::shown($closes, 'j M Y H:i'),
        };
    }

    public function shortLogin(): string
    {
        return explode('@', $this->login)[0];
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('ftp_users.account_id', self::accountsOf($client));
    }
}
