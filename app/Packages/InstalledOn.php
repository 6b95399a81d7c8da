<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;

/** Packages installed on sites, as their servers showed it at the last look, and what is newer in the library. */
final readonly class InstalledOn
{
    private const MOST_SUITING = 6;

    public function __construct(private PackageTypes $types)
    {
    }

    /** @return list<InstalledRow> */
    public function rows(Site $site): array
    {
        $rows = [];
        foreach ($site->installed as $one) {
            $fields = new JsonFields($one);
            $type = $this->types->get($fields->text('type'));
            $version = $fields->textOrNull('version');
            $name = $fields->textOrNull('name');
            $type === null || $rows[] = new InstalledRow(
                $type->label,
                '/'.$fields->text('directory'),
                $name,
                $version,
                $version === null ? null : $this->newer($type, $name, $version),
            );
        }

        return $rows;
    }

    /**
     * Where a version of the same is installed, as the servers showed it at their last look.
     *
     * @return list<InstalledAt> those that are behind first, by domain
     */
    public function sites(Package $package): array
    {
        $type = $this->types->get((string) $package->type);
        if ($type === null || $package->version === null) {
            return [];
        }
        $fileQuery = ['type' => $type->isUpdate ? (string) $type->system : $type->id]
            + ($type->place === Place::InsideSystem ? ['name' => $package->name] : []);
        $sites = Site::where('installed', '<>', '[]')
            ->whereRaw('JSON_CONTAINS(installed, ?)', [json_encode($fileQuery)])
            ->orderBy('domain')
            // Of a fleet these are thousands; models would cost more than the question.
            ->toBase()
            ->get(['id', 'domain', 'installed']);
        $found = [];
        foreach ($sites as $site) {
            foreach (json_decode($site->installed, true, flags: JSON_THROW_ON_ERROR) as $one) {
                $version = $one['version'] ?? null;
                array_intersect_key($one, $fileQuery) === $fileQuery && $found[] = new InstalledAt(
                    (int) $site->id,
                    $site->domain,
                    '/'.$one['directory'],
                    $version,
                    $version !== null && version_compare((string) $version, $package->version, '<'),
                );
            }
        }
        usort($found, static fn (InstalledAt $a, InstalledAt $b): int => $b->isBehind <=> $a->isBehind);

        return $found;
    }

    /**
     * Where the system of a theme, an extension or an update is installed, and the package is not, or is older.
     *
     * @param  list<InstalledAt>  $installed  as sites() gives it
     * @return list<SuitingSite> by domain, the first of many
     */
    public function suiting(Package $package, array $installed): array
    {
        $type = $this->types->get((string) $package->type);
        if ($type?->system === null) {
            return [];
        }
        $has = array_flip(array_map(
            static fn (InstalledAt $at): int => $at->site,
            array_filter($installed, static fn (InstalledAt $at): bool => ! $at->isBehind),
        ));
        $sites = Site::with('account.client')
            ->where('installed', '<>', '[]')
            ->whereRaw('JSON_CONTAINS(installed, ?)', [json_encode(['type' => $type->system])])
            ->whereNotIn('id', array_keys($has))
            ->orderBy('domain')
            ->limit(self::MOST_SUITING)
            ->get();
        $label = $this->types->get($type->system)->label ?? $type->system;
        $suiting = [];
        foreach ($sites as $site) {
            $version = collect($site->installed)->firstWhere('type', $type->system)['version'] ?? null;
            $suiting[] = new SuitingSite($site, trim("$label $version").' is installed');
        }

        return $suiting;
    }

    private function newer(PackageType $type, ?string $name, string $version): ?Package
    {
        $kinds = [$type->id];
        foreach ($this->types->all() as $other) {
            $other->isUpdate && $other->system === $type->id && $kinds[] = $other->id;
        }
        $query = Package::kept()->whereIn('type', $kinds)->where('stops', false)->whereNotNull('version');
        $name === null || $query->where('name', $name);

        $newer = null;
        foreach ($query->get() as $package) {
            if (version_compare((string) $package->version, (string) ($newer->version ?? $version), '>')) {
                $newer = $package;
            }
        }

        return $newer;
    }
}
