<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Site;

/** A site of another client that a package names. */
final readonly class NamedSite
{
    /** @param  int  $times  how often it is linked to or named as its own */
    public function __construct(public Site $site, public int $times)
    {
    }
}
