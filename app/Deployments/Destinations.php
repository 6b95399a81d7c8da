<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Failure\Problem;
use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Connection\RemoteReader;
use Cellarium\Core\Connection\RemoteText;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Path\RemotePath;

/** Where a package goes on a site by the rules of its type and by what is installed there; nothing is guessed. */
final readonly class Destinations
{
    /** Of a file that may name a version; in bytes. */
    public const READ = 64_000;

    public function __construct(private PackageTypes $types, private RemoteReader $remote)
    {
    }

    /**
     * @param  RemotePath|null  $place  that was chosen; null for the document root
     *
     * @throws Problem where it does not fit what is installed
     */
    public function of(
        Site $site,
        Package $package,
        ?RemotePath $place,
        Manifest $live,
    ): PackageDestination {
        $installed = InstalledPackages::find($live, $this->types, fn (string $path): string => (string) RemoteText::of(
            $this->remote,
            self::path($site, $path),
            self::READ,
        ));
        $site->update(['installed' => array_map(
            static fn (InstalledPackage $one): array => $one->toArray(),
            $installed->all,
        )]);
        $type = $this->types->get((string) $package->type);

        return match (true) {
            $type === null => new PackageDestination($place),
            $type->place === Place::InsideSystem => new PackageDestination(
                $place ?? $this->part(
                    $site,
                    $package,
                    $type,
                    $installed,
                ),
            ),
            $type->isUpdate => $this->update(
                $site,
                $package,
                $type,
                $place,
                $installed,
                $live,
            ),
            default => $this->whole(
                $site,
                $package,
                $type,
                $place,
                $installed,
            ),
        };
    }

    private function part(
        Site $site,
        Package $package,
        PackageType $type,
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

        return self::path($site, ltrim(
            $systems[0]->directory.'/'.str_replace('{name}', $package->name, (string) $type->directory),
            '/',
        ));
    }

    private function update(
        Site $site,
        Package $package,
        PackageType $type,
        ?RemotePath $place,
        InstalledPackages $installed,
        Manifest $live,
    ): PackageDestination {
        $system = self::at($site, $place, $installed->systems((string) $type->system));
        if ($system === null) {
            throw new Problem(
                "{$package->title()} is an update, and what it updates is not installed on $site->domain"
                    .($place === null ? '' : " in $place").'. Install it first, or choose its directory.',
            );
        }
        $before = Package::kept()
            ->where('version', $system->version)
            ->whereIn('type', [$type->system, $type->id])
            ->latest('id')
            ->first();

        return new PackageDestination($place, $before === null ? [] : TypeRules::untouched(
            $before->contents(),
            $live,
            $system->directory,
        ));
    }

    /** A whole system beside another one stays apart from it; over one of its kind it would be an update. */
    private function whole(
        Site $site,
        Package $package,
        PackageType $type,
        ?RemotePath $place,
        InstalledPackages $installed,
    ): PackageDestination {
        $there = self::at($site, $place, $installed->systems($type->id));
        if ($there !== null) {
            throw new Problem(
                "{$package->title()} is a new installation, and version $there->version is installed there already. "
                    .'Upload the update of the system, or choose another directory.',
            );
        }

        return new PackageDestination($place);
    }

    /** @param  list<InstalledPackage>  $systems */
    private static function at(Site $site, ?RemotePath $place, array $systems): ?InstalledPackage
    {
        foreach ($systems as $one) {
            if (self::path($site, $one->directory)->equals($place ?? $site->root())) {
                return $one;
            }
        }

        return null;
    }

    private static function path(Site $site, string $below): RemotePath
    {
        return $below === ''
            ? $site->root()
            : RemotePath::fromString(rtrim($site->root()->toString(), '/')."/$below");
    }
}
