<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Queue\ForHost;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

final class TakeBackup implements ForHost, ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(public readonly int $backup)
    {
    }

    public function host(): ?string
    {
        return Backup::with('site.account')->find($this->backup)?->site->account->host;
    }

    public function handle(Backups $backups): void
    {
        $backup = Backup::with('site.account', 'person')->find($this->backup);
        if ($backup !== null && $backup->state === BackupState::Taking && ! $backups->take($backup)) {
            // Nobody waits for one that is taken as promised.
            $delay = $backup->reason === BackupReason::Scheduled ? 20 : 2;
            self::dispatch($this->backup)->onQueue($this->queue)->delay($delay);
        }
    }
}
