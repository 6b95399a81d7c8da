<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\DatabaseAway;
use App\Models\Backup;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\TransferListener;

/** Writes how a backup goes on where the page looks for it, and ends it when it was cancelled. */
final class BackupProgress implements TransferListener
{
    private const SECONDS_BETWEEN = 0.5;

    private int $directories = 0;

    private int $entries = 0;

    private int $files = 0;

    private int $bytes = 0;

    private float $next = 0.0;

    public function __construct(private readonly Backup $backup)
    {
    }

    public function seen(int $directories, int $entries): void
    {
        [$this->directories, $this->entries] = [$directories, $entries];
        $this->beat();
    }

    public function fetched(ManifestEntry $file): void
    {
        $this->files++;
        $this->bytes += $file->size;
        $this->beat();
    }

    public function connection(int $number, ?Job $job, int $bytes): void
    {
    }

    private function write(): void
    {
        $this->backup->update(['progress' => [
            'directories' => $this->directories,
            'entries' => $this->entries,
            'files' => $this->files,
            'bytes' => $this->bytes,
        ]]);
        if (Backup::where('id', $this->backup->id)->whereNotNull('cancelled_at')->exists()) {
            throw Cancelled::byAPerson();
        }
    }

    public function beat(): void
    {
        if (hrtime(true) / 1e9 < $this->next) {
            return;
        }
        $this->next = hrtime(true) / 1e9 + self::SECONDS_BETWEEN;
        DatabaseAway::tolerate($this->write(...));
    }
}
