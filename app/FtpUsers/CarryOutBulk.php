<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\BulkChange;
use App\Models\BulkChangeState;
use App\Work\RecoversForgotten;
use App\Work\Task;
use App\Work\Tasks;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Carries out a change to many FTP users; one whose worker ended is gone on with at the next.
 *
 * @implements RecoversForgotten<BulkChange>
 */
final readonly class CarryOutBulk implements RecoversForgotten, Task
{
    public function __construct(private BulkChanges $bulk)
    {
    }

    public static function claim(int $row): Claim
    {
        return new Claim(Urgency::Ordered);
    }

    public function carryOut(int $row): ?int
    {
        $change = BulkChange::where('state', BulkChangeState::Going)->find($row);
        $change === null || $this->bulk->carryOut($change);

        return null;
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return BulkChange::where('state', BulkChangeState::Going)->where('updated_at', '<=', $since);
    }

    public function takeUp(Model $row): bool
    {
        $row->touch();
        Tasks::order(self::class, $row->id);

        return false;
    }
}
