<?php

declare(strict_types=1);

namespace App\Plans;

use App\Packages\ServedView;
use Carbon\CarbonImmutable;

/** A site as it would be with a package on it. */
final readonly class DeploymentPreview
{
    /**
     * @param  string|null  $problem  why it cannot go there; the rest is empty then
     * @param  CarbonImmutable|null  $seenAt  when what lies there was seen; null where nobody has looked
     * @param  string  $into  the directory it goes to
     */
    public function __construct(
        public ?string $problem,
        public ?CarbonImmutable $seenAt = null,
        public string $into = '',
        public ?PlanTree $tree = null,
        public ?PlanTotals $totals = null,
        public ?ServedView $served = null,
    ) {
    }
}
