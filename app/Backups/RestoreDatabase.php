<?php

declare(strict_types=1);

namespace App\Backups;

use App\Errands\ErrandResult;
use App\Errands\ErrandTask;
use App\Models\Backup;
use App\Models\Errand;
use Cellarium\Core\Work\Urgency;

final class RestoreDatabase extends ErrandTask
{
    public function __construct(private readonly DatabaseRestore $restore)
    {
    }

    public static function title(): string
    {
        return 'Backing up, then restoring the database';
    }

    public static function onlyLooks(): bool
    {
        return false;
    }

    public static function urgency(): Urgency
    {
        return Urgency::Look;
    }

    protected function do(Errand $errand): ErrandResult
    {
        $backup = Backup::with('site.account.client')->find(
            (int) ($errand->given['backup'] ?? 0),
        ) ?? throw self::removed();

        return new ErrandResult($this->restore->carryOut($backup, (string) ($errand->given['database'] ?? '')));
    }
}
