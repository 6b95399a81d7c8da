<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/**
 * The destination of a package on a site, by the rules of its type and by what is installed there; nothing is guessed.
 */
final readonly class Destinations
{
    public function __construct(private PackageTypes $types)
    {
    }

    /**
     * @param  Manifest  $live  of all from where the run begins
     * @param  InstalledPackages  $installed  below the directory visitors come in at
     *
     * @throws Problem where it does not fit what is installed
     */
    public function of(
        Deployment $deployment,
        Package $package,
        RunPlace $where,
        Manifest $live,
        InstalledPackages $installed,
    ): PackageDestination {
        $site = $deployment->site;
        $type = $this->types->get((string) $package->type);
        $place = $deployment->place();
        if ($type === null || $type->place === Place::AboveDocumentRoot) {
            return new PackageDestination($place);
        }
        if ($type->place === Place::InsideSystem) {
            return new PackageDestination($place ?? $this->part($site, $package, $type, $where, $installed));
        }
        $kind = $type->isUpdate ? (string) $type->system : $type->id;
        $there = self::at($where, $place, $installed->systems($kind));
        if (! $type->isUpdate) {
            // A whole system beside another one stays apart from it; over one of its kind it would be an update.
            return $there === null ? new PackageDestination($place) : throw new Problem(
                "{$package->title()} is a new installation, and version $there->version is installed there already. "
                    .'Upload the update of the system, or choose another directory.',
            );
        }

        return $there === null
            ? throw new Problem(
                "{$package->title()} is an update, and what it updates is not installed on $site->domain"
                    .($place === null ? '' : " in $place").'. Install it first, or choose its directory.',
            )
            : new PackageDestination($place, $this->replaced($type, $there, $where, $live));
    }

    /** @return list<string> files of the version that is there, as it brought them, as paths of the run */
    private function replaced(PackageType $type, InstalledPackage $there, RunPlace $where, Manifest $live): array
    {
        $before = Package::kept()
            ->where('version', $there->version)
            ->whereIn('type', [$type->system, $type->id])
            ->latest('id')
            ->first();

        return $before === null ? [] : TypeRules::untouched(
            $before->contents(),
            $live,
            rtrim($where->inRun($there->directory), '/'),
        );
    }

    private function part(
        Site $site,
        Package $package,
        PackageType $type,
        RunPlace $where,
        InstalledPackages $installed,
    ): RemotePath {
        $systems = $installed->systems((string) $type->system);
        if ($systems === []) {
            throw new Problem(
                "{$package->title()} is a $type->label, and the system it belongs to, $type->system, is not installed "
                    ."on $site->domain. Install that first, or choose another site.",
            );
        }
        if (count($systems) > 1) {
            throw new Problem(
                "{$package->title()} is a $type->label, and $site->domain has several of its system: "
                    .implode(', ', array_map(
                        static fn (InstalledPackage $one): string => "/$one->directory",
                        $systems,
                    )).'. Choose the directory.',
            );
        }

        return self::path($where, ltrim(
            $systems[0]->directory.'/'.str_replace('{name}', $package->name, (string) $type->directory),
            '/',
        ));
    }

    /** @param  list<InstalledPackage>  $systems */
    private static function at(RunPlace $where, ?RemotePath $place, array $systems): ?InstalledPackage
    {
        foreach ($systems as $one) {
            if (self::path($where, $one->directory)->equals($place ?? $where->served)) {
                return $one;
            }
        }

        return null;
    }

    private static function path(RunPlace $where, string $belowServed): RemotePath
    {
        return $belowServed === '' ? $where->served : $where->served->join(RelativePath::fromString($belowServed));
    }
}
