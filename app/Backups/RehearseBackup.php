<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Backup;
use App\Work\Task;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Puts a backup back at the place for rehearsals, which nobody visits. */
final readonly class RehearseBackup implements Task
{
    private const SECONDS_TO_WAIT = 2;

    public function __construct(private Rehearsals $rehearsals)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $backup = Backup::with('site.account')->find($row);

        return $backup === null ? null : new Claim(Urgency::Backup, $backup->site->account->host);
    }

    public function carryOut(int $row): ?int
    {
        $backup = Backup::with('site.account')->find($row);

        return $backup === null || $this->rehearsals->carryOut($backup) ? null : self::SECONDS_TO_WAIT;
    }
}
