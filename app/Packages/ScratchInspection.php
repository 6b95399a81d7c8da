<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\ArchiveLimits;
use Cellarium\Core\Package\Fit\ClientSites;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageRefused;
use Cellarium\Core\Package\Type\TypeSource;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreSettings;
use Illuminate\Filesystem\Filesystem;
use Psr\Clock\ClockInterface;

/** Inspects an archive of which nothing is kept. */
final readonly class ScratchInspection
{
    public function __construct(
        private ClockInterface $clock,
        private ArchiveLimits $limits,
        private Filesystem $files,
        private TypeSource $types,
        private ClientSites $sites,
    ) {
    }

    /**
     * @throws PackageRefused
     * @throws StoreFailure
     */
    public function inspect(string $file, string $name): Inspection
    {
        $scratch = sys_get_temp_dir().'/cellarium-inspect-'.bin2hex(random_bytes(8));
        try {
            $store = StoreSettings::scratch($scratch)->open();

            $intake = new PackageIntake($store, $this->clock, $this->limits, $this->types, $this->sites);

            return $intake->take($file, $name);
        } finally {
            $this->files->deleteDirectory($scratch);
        }
    }
}
