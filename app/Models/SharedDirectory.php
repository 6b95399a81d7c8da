<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\SitePlaces;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A directory of an account that another account has too; each of the two has a row, by its own path. */
final class SharedDirectory extends Model
{
    public $timestamps = false;

    protected $guarded = ['id'];

    protected $casts = ['proven_at' => 'immutable_datetime'];

    /** @return BelongsTo<Account, $this> */
    public function other(): BelongsTo
    {
        return $this->belongsTo(Account::class, 'other_id');
    }

    public function here(): RemotePath
    {
        return RemotePath::fromString($this->path);
    }

    public function there(): RemotePath
    {
        return RemotePath::fromString($this->other_path);
    }

    /** A place as the other account has it; null where it is not within what both have. */
    public function toThere(RemotePath $here): ?RemotePath
    {
        return self::moved($here, $this->here(), $this->there());
    }

    /** A place of the other account as this one has it; null where it is not within what both have. */
    public function toHere(RemotePath $there): ?RemotePath
    {
        return self::moved($there, $this->there(), $this->here());
    }

    /** Whether two places, one of each account, have anything in common. */
    public function meet(RemotePath $here, RemotePath $there): bool
    {
        $common = $here->contains($this->here()) ? $this->there() : $this->toThere($here);

        return $common !== null && ($common->contains($there) || $there->contains($common));
    }

    /** A site of the other account as far as this one reaches it; null where it does not. */
    public function placesOf(string $domain, string $owner, RemotePath $root): ?SitePlaces
    {
        $here = $this->toHere($root);

        return match (true) {
            $here !== null => new SitePlaces($domain, $owner, $here),
            $root->contains($this->there()) => SitePlaces::partOf($domain, $owner, $this->here()),
            default => null,
        };
    }

    /**
     * Sites of the other account that have something in common with a place of this one, whosever they are.
     *
     * @return Collection<int, Site>
     */
    public function sitesAt(RemotePath $here): Collection
    {
        return Site::withoutGlobalScope('of-the-client')
            ->where('account_id', $this->other_id)
            ->orderBy('id')
            ->get()
            ->filter(fn (Site $site): bool => $this->meet($here, $site->applicationRoot()));
    }

    private static function moved(RemotePath $place, RemotePath $from, RemotePath $to): ?RemotePath
    {
        if ($place->equals($from)) {
            return $to;
        }
        $below = $from->toward($place);

        return $below === null ? null : $to->join($below);
    }
}
