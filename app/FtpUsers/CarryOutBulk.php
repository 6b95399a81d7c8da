<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\BulkChange;
use App\Models\BulkChangeState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

final class CarryOutBulk implements ShouldQueue
{
    use Queueable;

    public int $timeout = 0;

    public function __construct(public readonly int $change)
    {
    }

    public function handle(BulkChanges $bulk): void
    {
        $change = BulkChange::where('state', BulkChangeState::Going)->find($this->change);
        $change === null || $bulk->carryOut($change);
    }
}
