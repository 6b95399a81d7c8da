<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Backup;
use App\Queue\ForHost;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

final class RehearseBackup implements ForHost, ShouldQueue
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

    public function handle(Rehearsals $rehearsals): void
    {
        $backup = Backup::with('site.account')->find($this->backup);
        if ($backup !== null && ! $rehearsals->carryOut($backup)) {
            self::dispatch($this->backup)->onQueue($this->queue)->delay(2);
        }
    }
}
