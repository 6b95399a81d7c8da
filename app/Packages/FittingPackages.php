<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Package\Fit\PackageMarks;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What runs on a site, and which packages fit it, best first, each with the reason. */
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

    public static function of(Site $site, PackageTypes $types): self
    {
        $deployed = self::deployed($site);
        $live = $deployed->first();
        $installed = InstalledPackages::written($site->installed, $types);
        $found = [];
        $add = static function (?Package $package, string $why) use (&$found, $installed, $types): void {
            $isOffered = $package !== null && ! $package->stops && ! $package->isLetGo()
                && self::suits($types->get((string) $package->type), $installed);
            $isOffered && $found[$package->id] ??= new FittingPackage($package, $why);
        };
        if ($live !== null) {
            $newest = Package::kept()->where(['name' => $live->name, 'stops' => false])->latest('id')->first();
            $newest === null || $add(
                $newest,
                $newest->id > $live->id ? "newer than $live->version, which is live" : 'is live now',
            );
        }
        foreach (self::ofInstalled($installed, $types) as [$package, $why]) {
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

    /** Whether a plan would go on at all by what is installed: no system over itself, no part without one. */
    private static function suits(?PackageType $type, InstalledPackages $installed): bool
    {
        $atTop = static fn (string $id): bool => array_filter(
            $installed->systems($id),
            static fn (InstalledPackage $one): bool => $one->directory === '',
        ) !== [];

        return match (true) {
            $type === null => true,
            $type->isUpdate => $atTop((string) $type->system),
            $type->place === Place::InsideSystem => count($installed->systems((string) $type->system)) === 1,
            default => ! $atTop($type->id),
        };
    }

    /** @return list<array{Package, string}> updates, themes and extensions for the systems that are installed */
    private static function ofInstalled(InstalledPackages $installed, PackageTypes $types): array
    {
        $systems = array_unique(array_map(
            static fn (InstalledPackage $one): string => $one->type->system ?? $one->type->id,
            $installed->all,
        ));
        $kinds = array_filter(
            $types->all(),
            static fn (PackageType $type): bool => in_array((string) $type->system, $systems, true),
        );
        $newest = $kinds === [] ? collect() : Package::kept()
            ->whereIn('type', array_map(static fn (PackageType $type): string => $type->id, $kinds))
            ->where('stops', false)
            ->latest('id')
            ->limit(self::WEIGHED)
            ->get()
            ->unique('name');
        $found = [];
        foreach ($newest as $package) {
            $type = $types->get((string) $package->type);
            $there = self::there($package, $type, $installed);
            $isNewer = $there === null || version_compare((string) $package->version, (string) $there->version, '>');
            $type === null || ! $isNewer || $found[] = [$package, $there === null
                ? "is a $type->label, and its system is installed"
                : "newer than $there->version, which is installed"];
        }

        return $found;
    }

    /** The same as it is installed; null where it is not. */
    private static function there(
        Package $package,
        ?PackageType $type,
        InstalledPackages $installed,
    ): ?InstalledPackage {
        foreach ($installed->all as $one) {
            $isSame = $type?->isUpdate === true
                ? $one->type->id === $type->system
                : $one->type->id === $type?->id && $one->name === $package->name;
            if ($isSame) {
                return $one;
            }
        }

        return null;
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
