<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\Package;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;

/** The draft of a package's deployment over what is there, by the rules of its type. No server is asked. */
final readonly class PackageDraft
{
    private function __construct(
        public ?RemotePath $place,
        public Manifest $target,
        public Policy $policy,
        public Plan $plan,
    ) {
    }

    /**
     * @param  \Closure(RemotePath|null): list<string>  $ours  paths that the last deployment to a place put there
     * @param  \Closure(Manifest): list<string>  $placeholders  of the host, beside what is put there
     *
     * @throws Problem|PlanImpossible where it does not fit what is there
     */
    public static function forDeployment(
        PackageTypes $types,
        Deployment $deployment,
        SiteSides $sides,
        \Closure $ours,
        \Closure $placeholders,
    ): self {
        $package = $deployment->package ?? throw new Problem(
            'The package of this deployment is no longer here. Upload it again and make a new plan.',
        );
        $where = $deployment->runPlace();
        $type = $types->get((string) $package->type);
        $destination = (new Destinations($types))->of($deployment, $package, $where, $sides->live, $sides->installed);
        $into = $type?->place === Place::AboveDocumentRoot
            ? null
            : $where->root->toward($destination->place ?? $where->served);
        $target = TypeRules::writable(
            self::target($package, $types, $where, (string) $into),
            $type,
            (string) $into,
            $sides->live,
        );
        // What is deployed further down leaves everything beside it as it is; the backup holds the whole site either
        // way.
        $isWhole = $into === null || (string) $into === (string) $where->public;
        $policy = new Policy(
            [...self::kept($deployment, $where), ...TypeRules::keeps($type, (string) $into)],
            $isWhole ? $placeholders($target) : [],
            array_values(array_unique([...$ours($destination->place), ...$destination->replaced])),
            served: (string) $where->public,
            startPages: $deployment->site->start_pages,
        );

        return new self(
            $destination->place,
            $target,
            $policy,
            Planner::plan($target, $sides->live, $policy, $sides->left, $deployment->answers()),
        );
    }

    /** @param  string  $into  from where the run begins, "" is there */
    private static function target(Package $package, PackageTypes $types, RunPlace $where, string $into): Manifest
    {
        $type = $types->get((string) $package->type);
        $target = TypeRules::target($package->contents(), $type);

        return match (true) {
            $type?->place === Place::AboveDocumentRoot && $where->public !== null => TypeRules::aroundDocumentRoot(
                $target,
                $type,
                $where->public,
            ),
            $into === '' => $target,
            default => $target->below(RelativePath::fromString($into)),
        };
    }

    /** @return list<PathPattern> what the site keeps, in the run */
    private static function kept(Deployment $deployment, RunPlace $where): array
    {
        return $where->served->equals($deployment->site->root()) ? array_map(
            static fn (PathPattern $pattern): PathPattern => $pattern->below((string) $where->public),
            PathPattern::all($deployment->site->kept),
        ) : [];
    }
}
