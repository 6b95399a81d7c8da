<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\Backups;
use App\Backups\ScheduledBackups;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Person;
use App\Models\Site;

final class BackupCommand extends CellariumCommand
{
    protected $signature = 'cellarium:backup {site? : the domain} '
        .'{--all-due : begin those that are due by their promises} {--accept : what is listed is right, even if it is '
        .'much less than was known} {--json}';

    protected $description = 'Take a backup of a site and read it back';

    public function handle(Backups $backups, ScheduledBackups $scheduled): int
    {
        if ($this->option('all-due') === true) {
            return $this->allDue($scheduled);
        }
        $site = $this->siteNamed((string) $this->argument('site'));
        $backup = Backup::create([
            'site_id' => $site->id,
            'person_id' => Person::viewer()?->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Taking,
            'collapse_accepted' => (bool) $this->option('accept'),
        ]);
        while (! $backups->take($backup)) {
            usleep(500_000);
        }
        $backup->refresh();
        if ($backup->state !== BackupState::Verified) {
            return $this->refuse((string) $backup->trouble);
        }
        $this->wantsJson()
            ? $this->json([
                'ok' => true,
                'id' => $backup->id,
                'site' => $site->domain,
                'files' => $backup->files,
                'bytes' => (int) $backup->bytes,
                'fetched' => $backup->fetched_files,
                'taken_over' => $backup->taken_over_files,
                'taken_over_since' => $backup->taken_over_since?->toIso8601String(),
                'verified' => true,
            ])
            : $this->components->info(
                "Backup $backup->id of $site->domain: $backup->files files, $backup->bytes bytes. "
                ."{$backup->readings()}; the stored copy was read back.",
            );

        return self::PROVEN;
    }

    private function allDue(ScheduledBackups $scheduled): int
    {
        $begun = array_map(static fn (Site $site): string => $site->domain, $scheduled->begin());
        $this->wantsJson()
            ? $this->json(['ok' => true, 'begun' => $begun])
            : $this->components->info($begun === [] ? 'No backup is due.' : 'Begun: '.implode(', ', $begun).'.');

        return self::PROVEN;
    }
}
