<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Packages\FindingGroup;
use App\Packages\Packages;

final class PackageCommand extends CellariumCommand
{
    protected $signature = 'cellarium:package {file : a zip, tar, tar.gz or tar.xz} {--json}';

    protected $description = 'Upload a package, so that it is in the library; the same bytes twice are one package';

    public function handle(Packages $packages): int
    {
        $file = $this->readable((string) $this->argument('file'));
        $package = $packages->take($file, basename($file));
        if ($this->wantsJson()) {
            $this->json([
                'ok' => ! $package->stops,
                'id' => $package->id,
                'new' => $package->wasRecentlyCreated,
                'name' => $package->name,
                'version' => $package->version,
                'files' => $package->files,
                'bytes' => $package->bytes,
                'sha256' => $package->sha256,
                'findings' => array_count_values(array_column($package->findings, 'severity')),
            ]);
        } else {
            $this->components->info(
                "{$package->title()} "
                    .($package->wasRecentlyCreated ? 'is in the library' : 'was in the library already')
                    .", $package->files files.",
            );
            foreach (FindingGroup::all($package->notes()) as $group) {
                $this->components->twoColumnDetail($group->title(), "{$group->label()} · ".count($group->findings));
            }
        }

        return $package->stops ? self::REFUSED : self::PROVEN;
    }
}
