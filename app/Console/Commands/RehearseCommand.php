<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\Rehearsals;
use App\Failure\Problem;
use App\Models\Backup;

final class RehearseCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    /** So many at a time, when it goes by itself. */
    private const MOST = 40;

    protected $signature = 'cellarium:rehearse {backup? : the number of a backup, or a domain for its newest one} '
        .'{--all-due : those whose rehearsal is due by the promises of their sites} {--json}';

    protected $description = 'Bring backups back where nobody sees it: unpack, hash again, have their pages given';

    public function handle(Rehearsals $rehearsals): int
    {
        $backups = $this->option('all-due') === true ? $rehearsals->due(self::MOST) : [$this->backup()];
        $rows = [];
        foreach ($backups as $backup) {
            while (! $rehearsals->carryOut($backup)) {
                usleep(500_000);
            }
            $backup->refresh();
            $rows[] = ['backup' => $backup->id, 'site' => $backup->site->domain] + ($backup->rehearsal ?? []);
        }
        $failed = array_filter($rows, static fn (array $row): bool => isset($row['trouble']));
        if ($this->wantsJson()) {
            $this->json(['ok' => $failed === [], 'rehearsed' => $rows]);
        }
        foreach ($this->wantsJson() ? [] : $rows as $row) {
            isset($row['trouble'])
                ? $this->components->error("Backup {$row['backup']} of {$row['site']}: {$row['trouble']}")
                : $this->components->info(
                    "Backup {$row['backup']} of {$row['site']}: {$row['files']} files unpacked and the same, "
                        ."{$row['pages']} of {$row['of_pages']} pages given with the same bytes.",
                );
        }
        $rows !== [] || $this->wantsJson() || $this->components->info('No rehearsal is due.');

        return $failed === [] ? self::PROVEN : self::REFUSED;
    }

    private function backup(): Backup
    {
        $named = (string) $this->argument('backup');
        $backup = ctype_digit($named)
            ? Backup::with('site.account')->find((int) $named)
            : Rehearsals::newest($this->siteNamed($named));

        return $backup ?? throw new Problem(
            'There is no such backup. cellarium:backups with a domain shows which there are.',
        );
    }
}
