<?php

declare(strict_types=1);

namespace App\Watch;

use App\Accounts\AccountCheck;
use App\Failure\Problem;
use App\Models\Account;
use App\Queue\ForHost;
use Cellarium\Core\Storage\Locks;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Looks at one account by itself: one at a time for each host, after everything that people wait for. */
final class SweepAccount implements ForHost, ShouldQueue
{
    use Queueable;

    public const QUEUE = 'sweep';

    private const SECONDS_TO_WAIT = 3;

    public int $timeout = 0;

    public function __construct(
        public readonly int $account,
        public readonly string $host,
    ) {
        $this->onQueue(self::QUEUE);
    }

    public function host(): string
    {
        return $this->host;
    }

    public function handle(AccountCheck $check, Upkeep $upkeep, Locks $locks): void
    {
        $lock = $locks->acquire('sweep-'.substr(hash('sha256', $this->host), 0, 24));
        if ($lock === null) {
            self::dispatch($this->account, $this->host)->delay(self::SECONDS_TO_WAIT);

            return;
        }
        try {
            $account = Account::with('client', 'sites')->find($this->account);
            if ($account !== null && $check->connect($account, true)->holds()) {
                $upkeep->proveAgain($account, (int) config('cellarium.sweep_hours'));
            }
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            logger()->warning("The sweep at $this->host: ".$failure->getMessage());
        } finally {
            $lock->release();
        }
    }
}
