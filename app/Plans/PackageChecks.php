<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Package;
use App\Models\Site;
use App\Packages\FindingGroup;
use App\Packages\LetGo;
use App\Packages\SiteMatches;
use App\Packages\Types;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\TypeRules;

/** Checks of a package before a plan is made; no server is asked. */
final readonly class PackageChecks
{
    public function __construct(private Types $types)
    {
    }

    /** @throws Problem where the package cannot go live at all, or not on this site */
    public function check(Site $site, Package $package): void
    {
        LetGo::mustBeHere($package);
        if (($package->type_choices ?? []) !== []) {
            throw new Problem(
                "{$package->title()} may be of several kinds. Say on its page which one, then deploy it.",
            );
        }
        $stops = collect($package->notes())->filter(static fn (PackageFinding $finding): bool => $finding->stops());
        // Which names are start pages is the site's to say, not the package's.
        $held = $stops->first(static fn (PackageFinding $finding): bool => ! $finding->code->isOfStartPage());
        $held === null || throw new Problem(
            "{$package->title()} cannot go live: ".FindingGroup::where($held).$held->message,
        );
        if (! $this->hasStartPage($site, $package, $this->types->types()->get((string) $package->type))) {
            $stop = $stops->first();
            throw new Problem(
                "{$package->title()} cannot go to $site->domain: "
                    .($stop->message
                        ?? 'none of the start pages of this site ('
                            .implode(', ', $site->start_pages)
                            .') stands at its top.'),
            );
        }
    }

    /** @throws Problem where another site fits better and nobody has said why it goes here */
    public function checkFit(Site $site, Package $package, ?string $reason): void
    {
        $better = $reason === null ? SiteMatches::forPackage($package, $this->types->types())->betterThan($site) : null;
        if ($better !== null) {
            throw new Problem(
                "{$package->title()} fits {$better->site->domain} better than $site->domain: "
                    ."{$better->fit->inWords()}. "
                    .'Choose that one, or say why it goes here all the same.',
            );
        }
    }

    private function hasStartPage(Site $site, Package $package, ?PackageType $type): bool
    {
        // A theme or an extension has none of its own.
        return $type?->place === Place::InsideSystem
            || $package->contents()->startPage($site->start_pages, TypeRules::servedFolder($type)) !== null;
    }
}
