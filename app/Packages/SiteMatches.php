<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Package\Fit\PackageMarks;
use Cellarium\Core\Package\Fit\SiteFit;
use Cellarium\Core\Package\Type\PackageTypes;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Sites that a package is for, by the domains and titles in it and by what is live where. */
final readonly class SiteMatches
{
    /** A mark that packages of more names have says nothing: libraries, icons, a theme of the agency's own. */
    private const MOST_NAMES = 2;

    private const SHOWN = 6;

    /**
     * @param  list<FittingSite>  $sites  best first
     * @param  list<NamedSite>  $named  sites whose domains stand in it, most often first
     */
    private function __construct(private array $sites, private array $named)
    {
    }

    public static function forPackage(Package $package, PackageTypes $types): self
    {
        $traits = $package->traits();
        $own = [];
        $linked = [];
        $hosts = array_map(strval(...), [...array_keys($traits->own), ...array_keys($traits->linked)]);
        foreach (KnownSites::named($hosts) as $host => $site) {
            $own[$site->id] = ($own[$site->id] ?? 0) + ($traits->own[$host] ?? 0);
            $linked[$site->id] = ($linked[$site->id] ?? 0) + ($traits->linked[$host] ?? 0);
        }
        // A system's files and its name are on the sites of many; whose this one is, its addresses alone may say.
        [$titles, $files, $named] = $types->isOfSystem((string) $package->type)
            ? [[], [], []]
            : self::alike($package);
        $ids = array_keys($own + $titles + $files + $named);
        $sites = Site::with('account.client')->whereIn('id', $ids)->get()->map(
            static fn (Site $site): FittingSite => new FittingSite($site, new SiteFit(
                $own[$site->id] ?? 0,
                $linked[$site->id] ?? 0,
                $titles[$site->id] ?? 0,
                $files[$site->id] ?? 0,
                isset($named[$site->id]),
            )),
        );

        $named = $sites
            ->map(static fn (FittingSite $one): NamedSite => new NamedSite(
                $one->site,
                // A canonical address is a link too.
                max($one->fit->own, $one->fit->linked),
            ))
            ->filter(static fn (NamedSite $one): bool => $one->times > 0)
            ->sortByDesc(static fn (NamedSite $one): int => $one->times);

        return new self($sites
            ->filter(static fn (FittingSite $one): bool => $one->fit->saysSomething())
            ->sortByDesc(static fn (FittingSite $one): int => $one->fit->points())
            ->values()
            ->all(), $named->values()->all());
    }

    /** @return list<NamedSite> of other clients than this one's, most often named first */
    public function ofOtherClients(Site $chosen): array
    {
        return array_slice(array_values(array_filter(
            $this->named,
            static fn (NamedSite $one): bool => KnownSites::clientOf($one->site) !== KnownSites::clientOf($chosen),
        )), 0, self::SHOWN);
    }

    /** @return list<FittingSite> best first, those that say something */
    public function best(): array
    {
        return array_slice($this->sites, 0, self::SHOWN);
    }

    /**
     * The site that fits clearly better than this one; null where none does, or where sites of several clients do: then
     * it is for all of them.
     */
    public function betterThan(Site $chosen): ?FittingSite
    {
        $own = new SiteFit;
        foreach ($this->sites as $one) {
            $one->site->is($chosen) && $own = $one->fit;
        }
        $better = collect($this->sites)
            ->reject(static fn (FittingSite $one): bool => $one->site->is($chosen))
            ->filter(static fn (FittingSite $one): bool => $one->fit->isClearlyBetterThan($own));
        $clients = $better->map(static fn (FittingSite $one): int => KnownSites::clientOf($one->site))->unique();

        return $clients->count() === 1 ? $better->first() : null;
    }

    /**
     * Sites where a package with the same titles, files or name is live.
     *
     * @return array{array<int, int>, array<int, int>, array<int, true>} how many titles and files, by site
     */
    private static function alike(Package $package): array
    {
        $marks = DB::table('package_marks')->where('package_id', $package->id)->pluck('mark');
        $rows = DB::table('package_marks as m')
            ->join('packages as p', 'p.id', '=', 'm.package_id')
            ->whereIn('m.mark', $marks)
            ->whereNull('p.let_go_at')
            ->get(['m.mark', 'm.package_id', 'p.name']);
        $common = $rows
            ->groupBy('mark')
            ->filter(static fn (Collection $same): bool => $same->pluck('name')->unique()->count() > self::MOST_NAMES);
        $counts = [];
        foreach ($rows as $row) {
            if (! $common->has($row->mark)) {
                $id = (int) $row->package_id;
                $kind = (string) $row->mark[0];
                $counts[$id][$kind] = ($counts[$id][$kind] ?? 0) + 1;
            }
        }
        $sameName = Package::kept()->where('name', $package->name)->pluck('id')->all();
        $runs = WhereRuns::forPackages(array_values(array_unique([...array_keys($counts), ...$sameName])));
        [$titles, $files, $named] = [[], [], []];
        foreach ($counts as $id => $of) {
            foreach ($runs->live($id) as $at) {
                $titles[$at->site] = max($titles[$at->site] ?? 0, $of[PackageMarks::TITLE] ?? 0);
                $files[$at->site] = max($files[$at->site] ?? 0, $of[PackageMarks::FILE] ?? 0);
            }
        }
        foreach ($sameName as $id) {
            foreach ([...$runs->live($id), ...$runs->wayBack($id)] as $at) {
                $named[$at->site] = true;
            }
        }

        return [$titles, $files, $named];
    }
}
