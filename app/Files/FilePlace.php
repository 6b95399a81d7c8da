<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\Errand;
use App\Models\Person;
use App\Models\Site;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Permission;
use Illuminate\Database\Eloquent\Collection;

/** A directory of an account that somebody looks at, as one of a site or of the account as a whole. */
final readonly class FilePlace
{
    private function __construct(
        public Account $account,
        public ?Site $site,
        public RemotePath $base,
        public RemotePath $at,
    ) {
    }

    /**
     * @param  string  $below  path from where the site's files begin; "" for that itself
     *
     * @throws Problem
     */
    public static function ofSite(Site $site, string $below): self
    {
        $site->loadMissing('client', 'account.client', 'account.sites.client');
        $base = $site->applicationRoot();

        return new self($site->account, $site, $base, $below === '' ? $base : $base->join(self::path($below)));
    }

    /** @throws Problem */
    public static function ofAccount(Account $account, string $below): self
    {
        $account->loadMissing('client', 'sites.client');
        $root = RemotePath::root();

        return new self($account, null, $root, $below === '' ? $root : $root->join(self::path($below)));
    }

    /**
     * What an errand is about.
     *
     * @return self|null null where its account is gone
     *
     * @throws Problem
     */
    public static function ofErrand(Errand $errand): ?self
    {
        $at = RemotePath::fromString((string) ($errand->given['at'] ?? '/'));
        $account = $errand->site->account ?? $errand->account;
        $place = match (true) {
            $errand->site !== null => self::ofSite($errand->site, ''),
            $account !== null => self::ofAccount($account, ''),
            default => null,
        };

        return $place?->at($at)
            ?? ($place === null ? null : throw new Problem("$at is not among the files of {$errand->site?->domain}."));
    }

    /** The same with another directory, where that belongs to it too. */
    public function at(RemotePath $at): ?self
    {
        return $this->base->contains($at)
            ? new self($this->account, $this->site, $this->base, $at)
            : null;
    }

    /** @param  array<string, scalar|null>  $query */
    public function url(?RemotePath $to = null, array $query = []): string
    {
        $below = $this->base->toward($to ?? $this->at);
        $path = $below === null
            ? ''
            : '/'.implode('/', array_map(rawurlencode(...), $below->segments()));
        $asked = http_build_query(array_filter($query, static fn (mixed $value): bool => $value !== null));

        return $this->start().$path.($asked === '' ? '' : "?$asked");
    }

    /** Where a text of it is edited. */
    public function editUrl(RemotePath $file): string
    {
        return $this->owner().'/edit-file'.substr($this->url($file), strlen($this->start()));
    }

    /** Where a picture of it comes from. */
    public function lookUrl(RemotePath $file): string
    {
        return $this->owner().'/look-file'.substr($this->url($file), strlen($this->start()));
    }

    /** Where a file is put beside what it held once. */
    public function compareUrl(RemotePath $file, string $sha256): string
    {
        return $this->owner().'/compare-file'.substr($this->url($file), strlen($this->start()))."?with=$sha256";
    }

    /** Whether whoever looks may change something here. */
    public function mayBeChanged(): bool
    {
        return Person::viewer()?->may(Permission::Work) === true;
    }

    /** Where its files begin. */
    public function start(): string
    {
        return $this->owner().'/files';
    }

    /** The page of whose files these are. */
    public function owner(): string
    {
        return $this->site === null ? "/accounts/{$this->account->id}" : "/sites/{$this->site->id}";
    }

    /** @return list<array{string, RemotePath}> names from where it begins down to here, without that itself */
    public function trail(): array
    {
        $trail = [];
        $at = $this->base;
        foreach ($this->base->toward($this->at)?->segments() ?? [] as $name) {
            $at = $at->child($name);
            $trail[] = [$name, $at];
        }

        return $trail;
    }

    /** The site whose files these are: the one that begins deepest. */
    public function served(): ?Site
    {
        if ($this->site !== null) {
            return $this->site;
        }
        $deepest = null;
        foreach ($this->account->sites as $site) {
            $isDeeper = $deepest === null || $deepest->applicationRoot()->contains($site->applicationRoot());
            if ($isDeeper && $site->applicationRoot()->contains($this->at)) {
                $deepest = $site;
            }
        }

        return $deepest;
    }

    /** @return Collection<int, Site> that the same client has beside this one */
    public function otherSites(): Collection
    {
        $client = $this->site?->owner()->id ?? $this->account->client_id;

        return Site::with('account.client', 'client')
            // By number, so that not all sites of all clients are looked through.
            ->whereIn('id', Person::viewer()?->sitesOf($client) ?? [])
            ->whereKeyNot($this->site->id ?? 0)
            ->orderBy('domain')
            ->get();
    }

    /** The address that visitors use; null where none leads there. */
    public function addressOf(RemotePath $path): ?string
    {
        $site = $this->served();

        return $site?->addresses()->of($path);
    }

    /** @throws Problem */
    private static function path(string $below): RelativePath
    {
        return RelativePath::tryFromString($below)
            ?? throw new Problem('This is no path in an account. Go back to where its files begin.');
    }
}
