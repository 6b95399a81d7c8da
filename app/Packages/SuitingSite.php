<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Site;

/** A site that has the system which a package belongs to. */
final readonly class SuitingSite
{
    /** @param  string  $why  "Quaylight 2.4 is installed" */
    public function __construct(public Site $site, public string $why)
    {
    }
}
