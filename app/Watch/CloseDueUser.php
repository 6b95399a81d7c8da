<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\FtpUser;
use App\Work\Task;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Closes one FTP user whose time has come, or that could not be closed then. */
final readonly class CloseDueUser implements Task
{
    public function __construct(private Upkeep $upkeep)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $user = FtpUser::with('account')->find($row);

        return $user === null ? null : new Claim(Urgency::Closing, $user->account->host);
    }

    public function carryOut(int $row): ?int
    {
        $this->upkeep->carryOut($row, UpkeepKind::Close);

        return null;
    }
}
