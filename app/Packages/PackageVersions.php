<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use Illuminate\Database\Eloquent\Collection;

/** The versions of a package, newest first, each with where it is live. */
final readonly class PackageVersions
{
    /** So many are shown; a build pipeline may have delivered hundreds. */
    private const MOST = 60;

    /** @param  Collection<int, Package>  $all */
    private function __construct(
        public Package $package,
        public Collection $all,
        public WhereRuns $runs,
        public int $notShown,
    ) {
    }

    public static function forPackage(Package $package): self
    {
        $query = Package::kept()->where('name', $package->name);
        $all = (clone $query)
            ->latest('id')
            ->limit(self::MOST)
            ->get(['id', 'name', 'version', 'file_name', 'created_at', 'files', 'bytes', 'mended_from', 'stops']);

        return new self(
            $package,
            $all,
            WhereRuns::forPackages($all->pluck('id')->all()),
            max(0, $query->count() - self::MOST),
        );
    }

    /** @return list<RunningAt> where an older version of it is live than the one that is shown */
    public function behind(): array
    {
        $behind = [];
        foreach ($this->all->where('id', '<', $this->package->id) as $version) {
            array_push($behind, ...$this->runs->live($version->id));
        }

        return $behind;
    }
}
