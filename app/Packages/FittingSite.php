<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Site;
use Cellarium\Core\Package\Fit\SiteFit;

/** A site, and how well a package fits it. */
final readonly class FittingSite
{
    public function __construct(public Site $site, public SiteFit $fit)
    {
    }
}
