<?php

declare(strict_types=1);

namespace App\Watch;

use App\Accounts\AccountCheck;
use App\Failure\Problem;
use App\Models\Account;
use App\Work\Task;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Looks at one account by itself: one at a time for each host, after everything that people wait for. */
final readonly class SweepAccount implements Task
{
    private const SECONDS_TO_WAIT = 3;

    public function __construct(private AccountCheck $check, private Upkeep $upkeep, private Locks $locks)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $host = Account::find($row)?->host;

        return $host === null ? null : new Claim(Urgency::Sweep, $host, self::lockName($host));
    }

    public function carryOut(int $row): ?int
    {
        $account = Account::with('client', 'sites')->find($row);
        if ($account === null) {
            return null;
        }
        $lock = $this->locks->acquire(self::lockName($account->host));
        if ($lock === null) {
            return self::SECONDS_TO_WAIT;
        }
        try {
            if ($this->check->connect($account, true)->holds()) {
                $this->upkeep->proveAgain($account, (int) config('cellarium.sweep_hours'));
            }
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            logger()->warning("The sweep at $account->host: ".$failure->getMessage());
        } finally {
            $lock->release();
        }

        return null;
    }

    private static function lockName(string $host): string
    {
        return 'sweep-'.substr(hash('sha256', $host), 0, 24);
    }
}
