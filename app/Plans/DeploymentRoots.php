<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\Package;
use App\Models\Site;
use App\Packages\Types;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Path\RemotePath;

/**
 * The directory that the paths of a deployment begin at: at the document root, above it, or in a directory mounted
 * below the site.
 */
final readonly class DeploymentRoots
{
    public function __construct(private Types $types)
    {
    }

    /**
     * @param  RemotePath|null  $place  that was chosen; null where nobody chose one
     * @return array{RemotePath, RemotePath|null} where its paths begin, and the place; null for the whole of it
     *
     * @throws Problem where it can not go there, or a place must be chosen
     */
    public function of(Site $site, Package $package, ?RemotePath $place): array
    {
        $type = $this->types->types()->get((string) $package->type);
        if ($type?->place === Place::Subfolder) {
            $place ??= self::onlyMount($site, $package);
        }
        $place = $place?->equals($site->root()) === true ? null : $place;
        $mount = $place === null || $site->root()->toward($place) !== null ? null : self::mountOf($site, $place);
        if ($type?->place === Place::AboveDocumentRoot) {
            return self::above($site, $package, $type, $place);
        }

        return [$mount ?? $site->applicationRoot(), $place];
    }

    /**
     * A deployment that is not kept, only for looking what it would do.
     *
     * @throws Problem where it can not go there, or a place must be chosen
     */
    public function draft(Site $site, Package $package): Deployment
    {
        [$root, $place] = $this->of($site, $package, null);
        $deployment = new Deployment([
            'kind' => DeploymentKind::Deploy,
            'directory' => $place?->toString(),
            'root' => self::stored($site, $root),
        ]);

        return $deployment->setRelation('site', $site)->setRelation('package', $package);
    }

    /** As it is written down with deployments and backups. */
    public static function stored(Site $site, RemotePath $root): ?string
    {
        return $root->equals($site->root()) ? null : $root->toString();
    }

    /** @throws Problem */
    private static function mountOf(Site $site, RemotePath $place): RemotePath
    {
        foreach ($site->mounted() as $mount) {
            if ($mount->contains($place)) {
                return $mount;
            }
        }
        throw new Problem(
            "$place does not lie in the document root of $site->domain, $site->document_root, "
                .'and is not mounted below it.',
        );
    }

    /** @throws Problem */
    private static function onlyMount(Site $site, Package $package): RemotePath
    {
        $mounts = $site->mounted();
        if (count($mounts) === 1) {
            return $mounts[0];
        }
        throw new Problem(
            "{$package->title()} goes into a subfolder. ".match ($mounts) {
                [] => "Choose the directory, or name it in the settings of $site->domain.",
                default => 'Choose which: '.implode(', ', array_map(strval(...), $mounts)).'.',
            },
        );
    }

    /**
     * @return array{RemotePath, RemotePath|null}
     *
     * @throws Problem where what lies there is not this application's alone
     */
    private static function above(Site $site, Package $package, PackageType $type, ?RemotePath $place): array
    {
        $served = $place ?? $site->root();
        $isServed = $served->equals($site->root())
            || array_filter($site->mounted(), static fn (RemotePath $mount): bool => $mount->equals($served)) !== [];
        $isServed || throw new Problem(
            "{$package->title()} is a $type->label: its $type->directory/ becomes a directory that visitors come in "
                ."at. $served is none; choose the document root or a mounted directory.",
        );
        $root = $served->parent();
        $isTop = $root->equals(RemotePath::root());
        $beside = $isTop ? null : self::beside($site, $root, $served);
        if ($isTop || $beside !== null) {
            throw new Problem(
                "{$package->title()} is a $type->label: its $type->directory/ becomes $served, and the rest goes into "
                    ."$root, where "
                    .($beside === null ? 'everything of the account lies' : "$beside lies")
                    .'. Ask the host to lead the domain into a directory of its own, say '
                    .rtrim($root->toString(), '/')."/application/$type->directory, and set that as its document root.",
            );
        }

        return [$root, $served->equals($site->root()) ? null : $served];
    }

    /** What else visitors come in at there; null where nothing does. */
    private static function beside(Site $site, RemotePath $root, RemotePath $served): ?string
    {
        foreach ($site->account->sites as $other) {
            foreach ([$other->root(), ...$other->mounted()] as $directory) {
                if ($root->contains($directory) && ! $directory->equals($served)) {
                    return $directory->equals($other->root()) ? $other->domain : "$other->domain's $directory";
                }
            }
        }

        return null;
    }
}
