<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;

/** What is installed on sites, as their servers showed it at the last look, and what is newer in the library. */
final readonly class InstalledOn
{
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
