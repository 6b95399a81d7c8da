<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Packages\Types;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Package\Type\Needs;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Package\VisibleFile;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** Facts of a site that a deployment must show, and those it writes down once it is proven. */
final readonly class SiteFacts
{
    /** Of a file that may name a version; in bytes. */
    public const READ = 64_000;

    public function __construct(private Types $types, private ContentStore $store)
    {
    }

    public function needs(Deployment $deployment): Needs
    {
        return $this->typeOf($deployment)->needs ?? new Needs;
    }

    private function typeOf(Deployment $deployment): ?PackageType
    {
        return $deployment->kind === DeploymentKind::Deploy
            ? $this->types->types()->get((string) $deployment->package?->type)
            : null;
    }

    /** @return list<string> addresses that show by the rules of the package's type that it works */
    public function mustAnswer(Deployment $deployment): array
    {
        $type = $this->typeOf($deployment);
        $base = $type === null
            ? null
            : $deployment->site->addresses()->of(self::answersFrom($deployment, $type));

        return $base === null ? [] : array_map(
            static fn (string $path): string => rtrim($base, '/').$path,
            $type->proves,
        );
    }

    /** @return array<string, string|null> addresses of setup pages, with part of what they say until it is done */
    public function setups(Deployment $deployment): array
    {
        $type = $this->typeOf($deployment);
        $base = $type?->setup === null
            ? null
            : $deployment->site->addresses()->of(self::answersFrom($deployment, $type));

        return $base === null ? [] : [rtrim($base, '/').$type->setup->address => $type->setup->says];
    }

    /**
     * What was found in the package that nobody should fetch.
     *
     * @param  RemotePath|null  $place  that it goes to; null for where visitors come in
     * @return list<string> paths from there where visitors come in
     */
    public function exposed(Deployment $deployment, ?RemotePath $place): array
    {
        $folder = TypeRules::servedFolder($this->typeOf($deployment));
        $into = $place === null ? null : $deployment->runPlace()->served->toward($place);

        return array_map(
            static fn (string $path): string => $into === null || $folder !== '' ? $path : "$into/$path",
            VisibleFile::exposedBy($deployment->package?->notes() ?? [], $folder),
        );
    }

    /** The directory that its own "/" is; of a theme that is where its system lies. */
    private static function answersFrom(Deployment $deployment, PackageType $type): RemotePath
    {
        $served = $deployment->runPlace()->served;
        $place = $deployment->place() ?? $served;
        if ($type->place !== Place::InsideSystem) {
            return $place;
        }
        for ($depth = substr_count((string) $type->directory, '/'); $depth >= 0; $depth--) {
            $place = $place->parent();
        }

        return $served->contains($place) ? $place : $served;
    }

    /**
     * What a deployment to all of a site says of it; one into a mounted directory says nothing.
     *
     * @return array<string, mixed>
     */
    public function of(Deployment $deployment, ?Manifest $after): array
    {
        $where = $deployment->runPlace();
        $site = $deployment->site;
        if ($after === null || ! $where->served->equals($site->root())) {
            return [];
        }
        $public = $where->public?->toString();
        $facts = ['installed' => $this->installed($public === null ? $after : $after->inside($public))];

        return $facts + match (true) {
            $deployment->root === $site->application_root => ['bytes' => $after->bytes()],
            // From here on all of the application is backed up, and this was the first time.
            $deployment->root !== null => [
                'application_root' => $deployment->root,
                'last_backup_at' => $deployment->backup()->first()?->verified_at,
                'bytes' => $after->bytes(),
            ],
            default => [],
        };
    }

    /** @return list<array<string, string|null>> systems, themes and extensions that are there now */
    private function installed(Manifest $after): array
    {
        // What lies there was put there from the store or backed up into it.
        $read = function (string $path) use ($after): string {
            $sha256 = (string) $after->get($path)?->sha256;

            return $sha256 !== '' && $this->store->has($sha256)
                ? $this->store->text($sha256, self::READ)
                : '';
        };

        return array_map(
            static fn (InstalledPackage $one): array => $one->toArray(),
            InstalledPackages::find($after, $this->types->types(), $read)->all,
        );
    }
}
