<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\MorphMany;

/** A domain served from a document root. */
final class Site extends Model
{
    use OfClients;
    use Removable;

    protected $guarded = ['id'];

    protected $attributes = [
        'aliases' => '[]',
        'mounts' => '[]',
        'installed' => '[]',
        'leads_elsewhere' => false,
        'shows_files' => false,
        'client_id' => null,
        'application_root' => null,
        'php' => null,
        'last_backup_at' => null,
        'backup_promised_at' => null,
        'rehearsed_at' => null,
        'rehearsal_promised_at' => null,
        'last_deployment_id' => null,
    ];

    protected $casts = [
        'removed_at' => 'immutable_datetime',
        'start_pages' => 'array',
        'kept' => 'array',
        'aliases' => 'array',
        'mounts' => 'array',
        'installed' => 'array',
        'php' => 'array',
        'candidates' => 'array',
        'placeholder' => 'boolean',
        'leads_elsewhere' => 'boolean',
        'shows_files' => 'boolean',
        'root_proven_at' => 'immutable_datetime',
        'live_proven_at' => 'immutable_datetime',
        'last_backup_at' => 'immutable_datetime',
        'backup_promised_at' => 'immutable_datetime',
        'rehearsed_at' => 'immutable_datetime',
        'rehearsal_promised_at' => 'immutable_datetime',
        'backups_until' => 'immutable_datetime',
        'swap_barred_at' => 'immutable_datetime',
        'live_sampled' => 'boolean',
    ];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class)->withTrashed();
    }

    /** @return BelongsTo<Client, $this> whose site it is, where that is not the account's client */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class)->withTrashed();
    }

    /** Whose site it is. */
    public function owner(): Client
    {
        return $this->client_id === null ? $this->account->client : $this->client;
    }

    /** @return HasMany<Destination, $this> */
    public function destinations(): HasMany
    {
        return $this->hasMany(Destination::class)->orderBy('name');
    }

    /** @return HasMany<SetAside, $this> what deployments took out of it */
    public function setAside(): HasMany
    {
        return $this->hasMany(SetAside::class);
    }

    /** @return HasMany<Deployment, $this> */
    public function deployments(): HasMany
    {
        return $this->hasMany(Deployment::class);
    }

    /** @return HasMany<Backup, $this> */
    public function backups(): HasMany
    {
        return $this->hasMany(Backup::class);
    }

    /** @return BelongsTo<Deployment, $this> the newest that changed the site; written down as it is proven */
    public function lastDeployment(): BelongsTo
    {
        return $this->belongsTo(Deployment::class, 'last_deployment_id');
    }

    /** @return MorphMany<Proof, $this> */
    public function proofs(): MorphMany
    {
        return $this->morphMany(Proof::class, 'subject');
    }

    /** @return HasMany<FormerAccount, $this> in other accounts, before */
    public function stays(): HasMany
    {
        return $this->hasMany(FormerAccount::class)->oldest('id');
    }

    /** @return non-empty-list<SiteHome> all accounts that it was in or can be reached in, the one that it is in last */
    public function homes(): array
    {
        $since = null;
        $homes = [];
        foreach ($this->stays as $stay) {
            $homes[] = new SiteHome($stay->account, RemotePath::fromString($stay->root), $since, $stay->until);
            $since = $stay->until;
        }
        $others = SharedDirectory::where('account_id', $this->account_id)->with('other')->orderBy('id')->get();
        foreach ($others as $shared) {
            $there = $shared->toThere($this->applicationRoot());
            $there === null || $shared->other === null || $homes[] = new SiteHome($shared->other, $there, null, null);
        }
        $homes[] = new SiteHome($this->account, $this->applicationRoot(), $since, null);

        return $homes;
    }

    public function root(): RemotePath
    {
        return RemotePath::fromString($this->document_root);
    }

    /** Where what is compared, backed up and replaced as a whole begins: mostly the document root. */
    public function applicationRoot(): RemotePath
    {
        return RemotePath::fromString($this->application_root ?? $this->document_root);
    }

    /** Whether a login that lands in a directory can touch something of it, or lies within it. */
    public function isReachedFrom(RemotePath $directory): bool
    {
        $root = $this->applicationRoot();

        return $directory->contains($root) || $root->contains($directory);
    }

    /** @return list<RemotePath> directories that are mounted below the site */
    public function mounted(): array
    {
        return array_map(RemotePath::fromString(...), array_column($this->mounts, 'directory'));
    }

    /** The directory that visitors come in at, for what begins at a root. */
    public function placeFrom(RemotePath $root): RunPlace
    {
        foreach ([$this->root(), ...$this->mounted()] as $served) {
            if ($root->contains($served)) {
                return new RunPlace($root, $served);
            }
        }

        return new RunPlace($root, $root);
    }

    public function addresses(): PublicAddress
    {
        return $this->addressesFrom($this->root());
    }

    /** The address visitors use for a directory of its account; null where they cannot reach it. */
    public function addressOf(string $directory): ?string
    {
        return $this->addresses()->of(RemotePath::fromString($directory));
    }

    /** The same map with another directory as document root. */
    public function addressesFrom(RemotePath $root): PublicAddress
    {
        return new PublicAddress(
            $this->base_url,
            $root,
            array_map(RemotePath::fromString(...), array_column($this->mounts, 'directory', 'path')),
            $this->aliases,
        );
    }

    /** The site whose visitors would see what lies beside a directory; null where nobody would. */
    public function servedAbove(RemotePath $root): ?string
    {
        foreach ($this->account->sites as $other) {
            if ($other->id !== $this->id && $other->root()->contains($root->parent())) {
                return $other->domain;
            }
        }

        return null;
    }

    /** Where a browser finds the live site. */
    public function liveLink(): string
    {
        $suffix = (string) config('cellarium.live_suffix');

        return $suffix === ''
            ? $this->base_url.'/'
            : str_replace($this->domain, $this->domain.$suffix, $this->base_url).'/';
    }

    /** An address of the site as a browser here finds it, see liveLink(). */
    public function liveAddress(string $address): string
    {
        return str_starts_with($address, "$this->base_url/")
            ? $this->liveLink().substr($address, strlen($this->base_url) + 1)
            : $address;
    }

    /** Two letters for its jar. */
    public function initials(): string
    {
        $name = (string) preg_replace('/\Awww\d*\./', '', $this->domain);

        return mb_substr($name, 0, 2);
    }

    /**
     * Whether whoever looks may look at its files. For its client's people a maintainer has to have allowed it, and
     * nothing of another client lies among them.
     */
    public function filesAreShown(): bool
    {
        $client = Person::clientOfViewer();

        return $client === null || ($this->shows_files && ! self::withoutGlobalScope('of-the-client')
            ->with(['account' => static fn ($query) => $query->withoutGlobalScope('of-the-client')])
            ->where('account_id', $this->account_id)
            ->whereKeyNot($this->id)
            ->whereNull('removed_at')
            ->get()
            ->contains(fn (self $other): bool => ($other->client_id ?? $other->account->client_id) !== $client
                && $this->applicationRoot()->contains($other->root())));
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('sites.id', self::sitesOf($client));
    }
}
