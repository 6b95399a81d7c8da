<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\FtpUser;
use App\Work\Task;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Removes what a proof of one FTP user that was cut off left on the server. */
final readonly class TidyUser implements Task
{
    public function __construct(private Upkeep $upkeep)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $user = FtpUser::with('account')->find($row);

        return $user === null ? null : new Claim(Urgency::Ordered, $user->account->host);
    }

    public function carryOut(int $row): ?int
    {
        $this->upkeep->carryOut($row, UpkeepKind::Tidy);

        return null;
    }
}
