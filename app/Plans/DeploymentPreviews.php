<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\Package;
use App\Models\Site;
use App\Packages\ServedView;
use App\Packages\Types;
use App\Storage\RunFiles;
use Carbon\CarbonImmutable;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\SensitiveNames;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\VisibleFile;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\PlanReader;

/**
 * Lays a package over what was seen of a site at its last backup or deployment. No server is asked, so this is for
 * looking; the plan looks itself.
 */
final readonly class DeploymentPreviews
{
    public function __construct(
        private RunFiles $files,
        private Types $types,
        private DeploymentRoots $roots,
        private PlanMaker $maker,
        private SiteFacts $facts,
    ) {
    }

    public function of(Site $site, Package $package): DeploymentPreview
    {
        $site->loadMissing('account.sites');
        try {
            $deployment = $this->roots->draft($site, $package);
            $known = $this->files->known($site, $deployment->runPlace()->root);
            $types = $this->types->types();
            $draft = PackageDraft::forDeployment(
                $types,
                $deployment,
                new SiteSides($known->manifest, InstalledPackages::written($site->installed, $types)),
                fn (?RemotePath $place): array => $this->maker->ours($deployment, $place),
                static fn (Manifest $target): array => self::placeholders($deployment, $target),
            );
        } catch (Problem|PlanImpossible $why) {
            return new DeploymentPreview($why->getMessage());
        }
        $where = $deployment->runPlace();

        return new DeploymentPreview(
            null,
            $known->seenAt === 0 ? null : CarbonImmutable::createFromTimestamp($known->seenAt),
            self::into($deployment, $draft, $this->types->types()->get((string) $package->type))->toString(),
            new PlanTree(PlanReader::fromPlan($draft->plan), $site, $where),
            new PlanTotals($draft->plan->counts()),
            new ServedView($this->served($deployment, $draft)),
        );
    }

    private static function into(Deployment $deployment, PackageDraft $draft, ?PackageType $type): RemotePath
    {
        $where = $deployment->runPlace();

        return $type?->place === Place::AboveDocumentRoot ? $where->root : $draft->place ?? $where->served;
    }

    /** @return list<VisibleFile> */
    private function served(Deployment $deployment, PackageDraft $draft): array
    {
        $where = $deployment->runPlace();
        $site = $deployment->site;
        $after = self::after($draft->plan);
        $after = $where->public === null ? $after : $after->inside($where->public->toString());
        $prefix = rtrim((string) parse_url((string) $site->addresses()->of($where->served), PHP_URL_PATH), '/');
        $sensitive = array_filter(
            $after->files(),
            static fn (ManifestEntry $file): bool => SensitiveNames::isOne($file->path),
        );

        return array_map(
            static fn (VisibleFile $one): VisibleFile => $one->below($prefix),
            VisibleFile::all(
                $after,
                [
                    ...$this->found($deployment, $draft, $after),
                    ...array_map(static fn (ManifestEntry $file): string => $file->path->toString(), $sensitive),
                ],
                $site->start_pages,
            ),
        );
    }

    /** @return list<string> what was found in the package that nobody should fetch, from the root of the site */
    private function found(Deployment $deployment, PackageDraft $draft, Manifest $after): array
    {
        $paths = $this->facts->exposed($deployment, $draft->place);

        return array_values(array_filter($paths, static fn (string $path): bool => $after->get($path) !== null));
    }

    private static function after(Plan $plan): Manifest
    {
        $entries = [];
        foreach ($plan->items as $item) {
            $entry = $item->change === Change::Keep ? $item->live : $item->target ?? $item->live;
            $item->change === Change::SetAside || $entry === null || $entries[] = $entry;
        }

        return Manifest::fromEntries($entries);
    }

    /** @return list<string> */
    private static function placeholders(Deployment $deployment, Manifest $target): array
    {
        $site = $deployment->site;
        $path = $deployment->runPlace()->inRun((string) $site->placeholder_file);

        return $site->placeholder === true && $target->get($path) === null ? [$path] : [];
    }
}
