<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\Expiry;
use App\Backups\MomentDifference;
use App\Backups\TwoMoments;
use App\Failure\Problem;
use App\Models\Backup;

final class DiffCommand extends CellariumCommand
{
    protected $signature = 'cellarium:diff {site : the domain} {a : the number of a backup} '
        .'{b : the number of a later one} {--json}';

    protected $description = 'What differs between two backups of a site, and who brought each change';

    public function handle(TwoMoments $moments): int
    {
        $site = $this->siteNamed((string) $this->argument('site'));
        $differences = $moments->between($site, $this->backup('a'), $this->backup('b'));
        if ($this->wantsJson()) {
            $this->json([
                'ok' => true,
                'site' => $site->domain,
                'differences' => array_map(static fn (MomentDifference $one): array => $one->toArray(), $differences),
            ]);

            return self::PROVEN;
        }
        $this->table(['File', 'A to B', 'By', 'Who and when'], array_map(
            static fn (MomentDifference $one): array => [
                $one->path,
                $one->sizes(),
                $one->by(),
                $one->words(),
            ],
            $differences,
        ));
        $differences === [] && $this->components->info('Nothing differs.');

        return self::PROVEN;
    }

    private function backup(string $argument): Backup
    {
        $number = (string) $this->argument($argument);

        return Expiry::held()->with('site')->find((int) $number) ?? throw new Problem(
            "There is no stored backup $number. cellarium:backups shows which there are.",
        );
    }
}
