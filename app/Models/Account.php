<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\TlsUse;
use Cellarium\Core\Hosting\LoginRules;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\DirectoryTree;
use Cellarium\Core\Reach\SitePlaces;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\MorphMany;

/** One hosting account; its secrets are encrypted with the application key. */
final class Account extends Model
{
    use OfClients;
    use Removable;

    protected $guarded = ['id'];

    protected $attributes = [
        'tags' => '[]',
        'label' => '',
        'active_mode' => false,
        'login_rules' => null,
        'ftp_protocol' => null,
        'ftp_port' => null,
        'tree' => null,
        'tls_use' => null,
        'secret_for' => null,
    ];

    protected $hidden = ['secret', 'control_token', 'private_key', 'next_secret'];

    protected $casts = [
        'connections_seen_at' => 'immutable_datetime',
        'removed_at' => 'immutable_datetime',
        'protocol' => Protocol::class,
        'tls_use' => TlsUse::class,
        'secret' => 'encrypted',
        'control_token' => 'encrypted',
        'private_key' => 'encrypted',
        'next_secret' => 'encrypted',
        'pin' => 'array',
        'tags' => 'array',
        'features' => 'array',
        'login_rules' => 'array',
        'ftp_protocol' => Protocol::class,
        'active_mode' => 'boolean',
        'climbing_at' => 'immutable_datetime',
        'used_at' => 'immutable_datetime',
        'tree' => 'array',
        'ladder' => 'array',
        'looked_at' => 'immutable_datetime',
        'reached_at' => 'immutable_datetime',
        'tried_at' => 'immutable_datetime',
    ];

    protected static function booted(): void
    {
        self::saving(static function (self $account): void {
            if ($account->isDirty(['secret', 'private_key']) || $account->secret_for === null) {
                $account->secret_for = $account->whereSecretsGo();
            }
        });
        self::updated(static function (self $account): void {
            if ($account->wasChanged('host')) {
                // Nor do those of its FTP users go to another host; they are renewed there.
                $account->ftpUsers()->whereNotNull('secret')->update(['secret' => null]);
            }
            if ($account->wasChanged(['host', 'login', 'address', 'start_directory'])) {
                // Another login has other directories; which of them are shared is seen when a root is proven again.
                SharedDirectory::where('account_id', $account->id)->orWhere('other_id', $account->id)->delete();
            }
        });
    }

    /** What the secrets were given for: host, port, protocol and login. They are sent nowhere else. */
    public function whereSecretsGo(): string
    {
        return hash(
            'sha256',
            json_encode(
                [strtolower($this->host), $this->port, $this->protocol->value, $this->login, $this->address],
                JSON_THROW_ON_ERROR,
            ),
        );
    }

    /** The same of the secrets of its FTP users, which may sign in another way. */
    public function whereFtpSecretsGo(): string
    {
        return hash('sha256', json_encode(
            [strtolower($this->host), $this->ftpPort(), $this->ftpProtocol()->value, $this->address],
            JSON_THROW_ON_ERROR,
        ));
    }

    /** Somebody has typed the secrets in, or agreed to where they go: they are for this place from now on. */
    public function bindSecrets(): self
    {
        $this->secret_for = $this->whereSecretsGo();

        return $this;
    }

    public function secretsAreForElsewhere(): bool
    {
        return $this->secret_for !== null && ! hash_equals($this->secret_for, $this->whereSecretsGo());
    }

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class)->withTrashed();
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

    /** @return HasMany<SharedDirectory, $this> directories that other accounts have too */
    public function shared(): HasMany
    {
        return $this->hasMany(SharedDirectory::class)->orderBy('id');
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

    /**
     * The address visitors use for a place in this account, by the first of its sites that shows it; null where none
     * does.
     */
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

    /** What the host lets the logins of FTP users be; as told by the host or typed by a person, else the usual. */
    public function rules(): LoginRules
    {
        return $this->login_rules === null
            ? LoginRules::fromForm('{name}@'.($this->sites->first()->domain ?? $this->host))
            : LoginRules::fromFields(new JsonFields($this->login_rules));
    }

    /** How FTP users sign in: as the account does, unless the host has another service for them. */
    public function ftpProtocol(): Protocol
    {
        return $this->ftp_protocol ?? $this->protocol;
    }

    public function ftpPort(): int
    {
        return $this->ftp_port ?? ($this->ftp_protocol === null ? $this->port : $this->ftp_protocol->defaultPort());
    }

    /** The directories as far as anybody has looked. */
    public function seen(): DirectoryTree
    {
        return DirectoryTree::fromFields(new JsonFields($this->tree ?? []));
    }

    /** @return list<SitePlaces> its sites as far as reach goes, and those of other accounts that it reaches too */
    public function places(): array
    {
        $own = $this->sites->map(fn (Site $site): SitePlaces => new SitePlaces(
            $site->domain,
            $this->ownerOf($site),
            $site->root(),
            $site->mounted(),
        ))->all();

        return [...array_values($own), ...$this->placesElsewhere()];
    }

    /** @return list<SharedDirectory> by which other accounts have a place of this one, for whoever may see them */
    public function sharing(RemotePath $place): array
    {
        $this->loadMissing('shared.other.sites');

        return array_values(array_filter(
            $this->shared->all(),
            static fn (SharedDirectory $shared): bool => $shared->other !== null && $shared->toThere($place) !== null,
        ));
    }

    /** @return list<SitePlaces> of sites of other accounts, in what this one shares with them */
    public function placesElsewhere(): array
    {
        $this->loadMissing('shared.other.sites');
        $places = [];
        foreach ($this->shared as $shared) {
            foreach ($shared->other->sites ?? [] as $site) {
                $place = $shared->placesOf($site->domain, $shared->other->ownerOf($site), $site->root());
                $place === null || $this->has($place) || $places[$site->id] = $place;
            }
        }

        return array_values($places);
    }

    /** Whether a site of this account is the same one: of that domain, or the same client's in the same directory. */
    private function has(SitePlaces $place): bool
    {
        return $this->sites->contains(fn (Site $own): bool => $own->domain === $place->domain
            || ! $place->isPart
                && $own->root()->equals($place->documentRoot)
                && $this->ownerOf($own) === $place->client);
    }

    /** The number of the client whose site it is, as text: the account's own, unless the site has another. */
    private function ownerOf(Site $site): string
    {
        return (string) ($site->client_id ?? $this->client_id);
    }

    /** @return list<RemotePath> saved destinations of its sites */
    public function destinations(): array
    {
        return $this->sites
            ->flatMap(static fn (Site $site) => $site->destinations)
            ->map(static fn (Destination $destination): RemotePath => $destination->path())
            ->values()
            ->all();
    }

    /** @return array<string, RemotePath> by domain */
    public function documentRoots(): array
    {
        return $this->sites->mapWithKeys(static fn (Site $site): array => [$site->domain => $site->root()])->all();
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('accounts.id', self::accountsOf($client));
    }
}
