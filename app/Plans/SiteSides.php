<?php

declare(strict_types=1);

namespace App\Plans;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Type\InstalledPackages;

/** The sides that a package is compared with. */
final readonly class SiteSides
{
    /**
     * @param  Manifest  $live  of all from where the deployment begins
     * @param  InstalledPackages  $installed  below the directory visitors come in at
     * @param  Manifest|null  $left  what the last deployment left; null where there was none
     */
    public function __construct(
        public Manifest $live,
        public InstalledPackages $installed,
        public ?Manifest $left = null,
    ) {
    }
}
