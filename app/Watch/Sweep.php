<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Account;
use App\Work\Tasks;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Work\Urgency;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Chooses the accounts that are due to be looked at and puts a few of them in line. */
final readonly class Sweep
{
    private const AT_ONCE = 60;

    private const LOST_MINUTES = 15;

    /** Until a person has changed something, trying again does no good, or harm: hosts lock accounts out. */
    private const FOR_A_PERSON = [
        FailureReason::SignInRefused,
        FailureReason::KeyNeeded,
        FailureReason::EncryptionDemanded,
        FailureReason::IdentityUnseen,
        FailureReason::IdentityChanged,
        FailureReason::CertificateUntrusted,
    ];

    /** @return int accounts put in line */
    public function start(): int
    {
        // A worker that was killed never gives its job back; nothing that is looked at takes so long.
        DB::table('jobs')
            ->where('queue', Urgency::Sweep->value)
            ->where('reserved_at', '<', now()->subMinutes(self::LOST_MINUTES)->getTimestamp())
            ->delete();
        if (DB::table('jobs')->where('queue', Urgency::Sweep->value)->exists()) {
            return 0; // What was put in line before comes first.
        }
        $due = Account::query()
            ->whereNotNull('tried_at')
            ->where('tried_at', '<', now()->subHours((int) config('cellarium.sweep_hours')))
            ->where(
                static fn ($query) => $query
                    ->whereNull('trouble')
                    ->orWhereNotIn(
                        'trouble',
                        array_map(static fn (FailureReason $reason): string => $reason->value, self::FOR_A_PERSON),
                    ),
            )
            ->orderBy('tried_at')
            ->limit(self::AT_ONCE)
            ->get(['id', 'host']);
        foreach (self::inTurns($due) as $account) {
            Tasks::order(SweepAccount::class, $account->id);
        }

        return $due->count();
    }

    /**
     * One of each host, then the next of each, so that hosts are visited side by side.
     *
     * @param  Collection<int, Account>  $accounts
     * @return list<Account>
     */
    private static function inTurns(Collection $accounts): array
    {
        $turns = [];
        foreach ($accounts->groupBy('host') as $alike) {
            foreach ($alike->values() as $turn => $account) {
                $turns[$turn][] = $account;
            }
        }

        return array_merge(...array_values($turns));
    }
}
