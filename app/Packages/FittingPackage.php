<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;

/** A package that fits a site, and why. */
final readonly class FittingPackage
{
    public function __construct(public Package $package, public string $why)
    {
    }
}
