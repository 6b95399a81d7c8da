<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;

/** One directory of a server, whichever logins and sites of this installation have it. */
final readonly class SamePlace
{
    /**
     * @param  non-empty-array<int, RemotePath>  $paths  as each account has it, by the account's number
     * @param  non-empty-list<int>  $sites  numbers of the sites that begin there, the lowest first
     */
    private function __construct(public array $paths, public array $sites)
    {
    }

    /** @param  RemotePath|null  $root  another directory of the site than where all of it begins */
    public static function ofSite(Site $site, ?RemotePath $root = null): self
    {
        $root ??= $site->applicationRoot();
        $paths = [$site->account_id => $root];
        foreach (SharedDirectory::where('account_id', $site->account_id)->orderBy('id')->get() as $shared) {
            $there = $shared->toThere($root);
            $there === null || $paths[$shared->other_id] ??= $there;
        }
        $sites = [$site->id];
        if (count($paths) > 1) {
            $others = Site::withoutGlobalScope('of-the-client')->whereIn('account_id', array_keys($paths))->get();
            foreach ($others as $other) {
                $other->applicationRoot()->equals($paths[$other->account_id]) && $sites[] = $other->id;
            }
        }
        $sites = array_values(array_unique($sites));
        sort($sites);

        return new self($paths, $sites);
    }

    /**
     * The site that was here first, and the place as it has it: what is kept of a place is kept for that one.
     *
     * @param  Site  $site  one of them
     * @return array{Site, RemotePath}
     */
    public function first(Site $site): array
    {
        $first = $this->sites[0] === $site->id
            ? $site
            : Site::withoutGlobalScope('of-the-client')->findOrFail($this->sites[0]);

        return [$first, $this->paths[$first->account_id]];
    }

    /** Whether a directory of an account is this one. */
    public function isAt(int $account, RemotePath $root): bool
    {
        return isset($this->paths[$account]) && $this->paths[$account]->equals($root);
    }

    /**
     * Versions of files that changes by hand made here, through whichever login.
     *
     * @return Builder<FileVersion>
     */
    public function versions(): Builder
    {
        return FileVersion::whereIn('account_id', array_keys($this->paths));
    }

    /**
     * The paths of a version from this place on, in the order before and after; those that lie elsewhere are left out.
     *
     * @return list<string>
     */
    public function within(FileVersion $version): array
    {
        $within = [];
        foreach ([$version->path, $version->after['path'] ?? null] as $path) {
            $below = $path === null ? null : $this->below($version->account_id, (string) $path);
            $below === null || $within[] = $below;
        }

        return $within;
    }

    /** A path from the top of an account as this place has it; null where it lies elsewhere. */
    public function below(int $account, string $path): ?string
    {
        return ($this->paths[$account] ?? null)?->toward(RemotePath::fromString('/'.ltrim($path, '/')))?->toString();
    }
}
