<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Packages\Packages;
use App\Plans\PlanMaker;
use App\Plans\Plans;
use Cellarium\Core\Plan\PlanItem;

final class PlanCommand extends CellariumCommand
{
    protected $signature = 'cellarium:plan {site : the domain} {file : a zip, tar, tar.gz or tar.xz} {--json}';

    protected $description = 'Show file by file what a deployment would do; nothing is changed';

    public function handle(Packages $packages, Plans $plans, PlanMaker $maker): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $file = $this->readable((string) $this->argument('file'));
        $package = $packages->take($file, basename($file));
        [, , $plan] = $maker->compare($plans->draft($site, $package));
        $files = array_values(array_filter($plan->items, static fn (PlanItem $item): bool => $item->isFile()));
        if ($this->wantsJson()) {
            $this->json(
                ['ok' => true, 'site' => $site->domain, 'package' => $package->title()]
                    + $plan->counts() + [
                        'items' => array_map(
                            static fn (PlanItem $item): array => [
                                'path' => $item->path->toString(),
                                'change' => $item->change->value,
                                'why' => $item->why->value,
                                'bytes' => $item->bytes(),
                            ],
                            $files,
                        ),
                    ],
            );
        } else {
            $this->table(
                ['file', 'in the package', 'on the server', 'afterwards'],
                array_map(
                    static fn (PlanItem $item): array => [
                        $item->path->toString(),
                        $item->target->size ?? '-',
                        $item->live->size ?? '-',
                        trim($item->change->label().', '.$item->reason(), ', '),
                    ],
                    $files,
                ),
            );
        }

        return self::PROVEN;
    }
}
