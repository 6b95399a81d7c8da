<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Site;
use App\Work\Task;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Asks whether what is open at a site answers visitors still. */
final readonly class AskOpenAddresses implements Task
{
    public function __construct(private OpenAddresses $addresses)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $site = Site::with('account')->find($row);

        return $site === null ? null : new Claim(Urgency::Sweep, $site->account->host);
    }

    public function carryOut(int $row): ?int
    {
        $site = Site::with('account')->find($row);
        $site === null || $this->addresses->askAgain($site);

        return null;
    }
}
