<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Packages\FindingGroup;
use Cellarium\Core\Package\PackageFinding;
use Cellarium\Core\Package\PackageIntake;

final class InspectCommand extends CellariumCommand
{
    protected $signature = 'cellarium:inspect {file : a zip or tar.gz} {--json}';

    protected $description = 'Say what a package is and how it would land';

    public function handle(PackageIntake $intake): int
    {
        $file = $this->readable((string) $this->argument('file'));
        $found = $intake->take($file, basename($file));
        if ($this->wantsJson()) {
            $this->json([
                'ok' => ! $found->stops(),
                'name' => $found->name,
                'version' => $found->version,
                'files' => count($found->manifest->files()),
                'bytes' => $found->manifest->bytes(),
                'wrapper' => $found->wrapper,
                'start_page' => $found->startPage,
                'findings' => array_map(
                    static fn (PackageFinding $finding): array => $finding->toArray(),
                    $found->findings,
                ),
            ]);
        } else {
            $this->components->twoColumnDetail(
                trim("$found->name $found->version"),
                count($found->manifest->files()).' files, '.$found->manifest->bytes().' bytes',
            );
            foreach ($found->findings as $finding) {
                $this->components->bulletList([FindingGroup::where($finding).$finding->message]);
            }
        }

        return $found->stops() ? self::REFUSED : self::PROVEN;
    }
}
