<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;

/** Packages that suit what is installed on a site. */
final readonly class InstalledFit
{
    /** So many packages of the right kinds are looked at. */
    private const WEIGHED = 40;

    public function __construct(private PackageTypes $types, private InstalledPackages $installed)
    {
    }

    /** Whether a plan would go on at all by what is installed: no system over itself, no part without one. */
    public function suits(Package $package): bool
    {
        $type = $this->types->get((string) $package->type);
        $atTop = fn (string $id): bool => array_filter(
            $this->installed->systems($id),
            static fn (InstalledPackage $one): bool => $one->directory === '',
        ) !== [];

        return match (true) {
            $type === null => true,
            $type->isUpdate => $atTop((string) $type->system),
            $type->place === Place::InsideSystem => count($this->installed->systems((string) $type->system)) === 1,
            default => ! $atTop($type->id),
        };
    }

    /** @return list<array{Package, string}> updates, themes and extensions for the systems that are installed */
    public function newer(): array
    {
        $systems = array_unique(array_map(
            static fn (InstalledPackage $one): string => $one->type->system ?? $one->type->id,
            $this->installed->all,
        ));
        $kinds = array_filter(
            $this->types->all(),
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
            $type = $this->types->get((string) $package->type);
            $there = $this->there($package, $type);
            $isNewer = $there === null || version_compare((string) $package->version, (string) $there->version, '>');
            $type === null || ! $isNewer || $found[] = [$package, $there === null
                ? "is a $type->label, and its system is installed"
                : "newer than $there->version, which is installed"];
        }

        return $found;
    }

    /** The same as it is installed; null where it is not. */
    private function there(Package $package, ?PackageType $type): ?InstalledPackage
    {
        foreach ($this->installed->all as $one) {
            $isSame = $type?->isUpdate === true
                ? $one->type->id === $type->system
                : $one->type->id === $type?->id && $one->name === $package->name;
            if ($isSame) {
                return $one;
            }
        }

        return null;
    }
}
