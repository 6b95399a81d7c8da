<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Package\Fit\PackageMarks;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Package\Type\PackageTypes;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** The package that runs on a site, and those that fit it, best first, each with the reason. */
final readonly class FittingPackages
{
    private const SHOWN = 6;

    /** So many packages with something in common are weighed. */
    private const WEIGHED = 40;

    /** Fewer common titles and files are chance. */
    private const LEAST_ALIKE = 4;

    /** @param  list<FittingPackage>  $packages */
    private function __construct(public ?Package $live, public array $packages)
    {
    }

    public static function forSite(Site $site, PackageTypes $types): self
    {
        $deployed = self::deployed($site);
        $live = $deployed->first();
        $installed = new InstalledFit($types, InstalledPackages::written($site->installed, $types));
        $found = [];
        $add = static function (?Package $package, string $why) use (&$found, $installed): void {
            $isOffered = $package !== null && ! $package->stops && ! $package->isLetGo()
                && $installed->suits($package);
            $isOffered && $found[$package->id] ??= new FittingPackage($package, $why);
        };
        if ($live !== null) {
            $newest = Package::kept()->where(['name' => $live->name, 'stops' => false])->latest('id')->first();
            $newest === null || $add(
                $newest,
                $newest->id > $live->id ? "newer than $live->version, which is live" : 'is live now',
            );
        }
        foreach ($installed->newer() as [$package, $why]) {
            $add($package, $why);
        }
        foreach (self::naming($site) as $package) {
            $add($package, "names $site->domain as its own");
        }
        foreach ($live === null ? [] : self::alike($live) as [$package, $count]) {
            $add($package, "$count titles and files as what is live");
        }
        $add($live, 'is live now');
        $add($deployed->get(1), 'was live before');

        return new self($live, array_slice(array_values($found), 0, self::SHOWN));
    }

    /** @return Collection<int, Package> what is live in the document root, and what was before that */
    private static function deployed(Site $site): Collection
    {
        return Deployment::with('package')
            ->where(['site_id' => $site->id, 'state' => DeploymentState::Proven, 'kind' => DeploymentKind::Deploy])
            ->whereNull('directory')
            ->whereNotNull('package_id')
            ->whereNotExists(static fn ($undo) => $undo
                ->from('deployments as u')
                ->whereColumn('u.undoes_id', 'deployments.id')
                ->where('u.state', DeploymentState::Proven)
                ->where('u.kind', DeploymentKind::Undo))
            ->latest('id')
            ->limit(2)
            ->get()
            ->map(static fn (Deployment $one): ?Package => $one->package)
            ->filter()
            ->values();
    }

    /** @return Collection<int, Package> newest first, one of each name */
    private static function naming(Site $site): Collection
    {
        $marks = array_map(PackageMarks::host(...), [$site->domain, ...$site->aliases]);

        return Package::kept()
            ->whereIn('id', DB::table('package_marks')->whereIn('mark', $marks)->select('package_id'))
            ->where('stops', false)
            ->latest('id')
            ->limit(self::WEIGHED)
            ->get()
            ->unique('name')
            ->values();
    }

    /** @return list<array{Package, int}> those of other names with the most in common first */
    private static function alike(Package $live): array
    {
        $counts = DB::table('package_marks')
            ->whereIn('mark', DB::table('package_marks')->where('package_id', $live->id)->pluck('mark'))
            ->where('package_id', '<>', $live->id)
            ->groupBy('package_id')
            ->havingRaw('COUNT(*) >= ?', [self::LEAST_ALIKE])
            ->orderByRaw('COUNT(*) DESC, package_id DESC')
            ->limit(self::WEIGHED)
            ->selectRaw('package_id, COUNT(*) AS alike')
            ->pluck('alike', 'package_id');
        $packages = Package::kept()
            ->whereIn('id', $counts->keys())
            ->where('name', '<>', $live->name)
            ->get()
            ->keyBy('id');
        $found = [];
        foreach ($counts as $id => $alike) {
            $package = $packages->get($id);
            $package === null || $found[] = [$package, (int) $alike];
        }

        return $found;
    }
}
