<?php

declare(strict_types=1);

namespace App\Watch;

use App\Failure\Problem;
use App\FtpUsers\CarryOutBulk;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\ReachProofs;
use App\Models\Account;
use App\Models\BulkChange;
use App\Models\BulkChangeState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use Illuminate\Database\Eloquent\Builder;

/** What is done about FTP users without anybody asking: closing at their time, finding out, proving again. */
final readonly class Upkeep
{
    /** Minutes between two tries to close what could not be closed. */
    private const AGAIN_MINUTES = 5;

    /** Minutes between two looks whether a person has done at the provider what is waited for. */
    private const BY_HAND_MINUTES = 60;

    /** Seconds after which a change that nobody works on any more counts as broken off. */
    private const STALE_SECONDS = 60;

    public function __construct(private FtpUsers $users, private ReachProofs $proofs)
    {
    }

    /** Closes those whose time has come, and tries again those that could not be closed. */
    public function closeDue(): void
    {
        $busy = Deployment::whereIn('state', [
            DeploymentState::Running,
            DeploymentState::Waiting,
            DeploymentState::Queued,
        ])
            ->pluck('ftp_user_id')
            ->filter();
        $again = now()->subMinutes(self::AGAIN_MINUTES);
        $due = FtpUser::with('account.client', 'account.sites')
            ->whereNotIn('id', $busy)
            ->where(
                static fn (Builder $either) => $either
                    ->where(
                        static fn (Builder $due) => $due
                            ->whereIn('state', [FtpUserState::Made, FtpUserState::Open])
                            ->where('closes_at', '<=', now())
                            ->whereNull('pending'),
                    )
                    ->orWhere(
                        static fn (Builder $failed) => $failed
                            ->where('state', FtpUserState::ClosingFailed)
                            ->where(
                                static fn (Builder $when) => $when
                                    ->whereNull('tried_at')
                                    ->orWhere('tried_at', '<=', $again)
                                    ->orWhere('tried_at', '>', now()),
                            ),
                    ),
            )
            ->get();
        // A host that does not answer keeps nobody else's user open past its minute.
        foreach ($due->sortBy(static fn (FtpUser $user): bool => $user->account->doesNotConnect()) as $user) {
            $this->try($user, fn () => $this->users->close($user, 'its time has come'));
        }
    }

    /** Finds out what became of changes whose process ended, whose answer was lost, or which a person was to make. */
    public function settleLeft(): void
    {
        $stale = now()->subSeconds(self::STALE_SECONDS);
        $byHand = now()->subMinutes(self::BY_HAND_MINUTES);
        foreach (
            FtpUser::with('account.client', 'account.sites')
                ->whereNotNull('pending')
                ->where('state', '!=', FtpUserState::ClosingFailed)
                ->where(
                    static fn (Builder $when) => $when
                        ->where('updated_at', '<=', $stale)
                        ->orWhere('updated_at', '>', now()),
                )
                ->get() as $user
        ) {
            // By hand, a sign-in that is not possible yet would be refused each time, and hosts lock out who asks too
            // often.
            if (
                $this->users->byHand($user)
                && (! $user->action()?->ends() === true || $user->updated_at->isAfter($byHand))
            ) {
                continue;
            }
            $tries = $user->pending->tries ?? 0;
            // A host that is away for long is asked less and less often.
            if (
                $user->updated_at->isAfter(now()->subMinutes(min(self::BY_HAND_MINUTES, 2 ** min($tries, 10))))
                && $user->updated_at->isPast()
            ) {
                continue;
            }
            $user->update(['pending' => $user->pending?->withAnotherTry()]);
            $this->try($user, fn () => $this->users->settle($user));
        }
    }

    /** Removes markers and probes that proofs left on servers when they were cut off. */
    public function tidy(): void
    {
        foreach (
            FtpUser::with('account.client', 'account.sites')
                ->whereNotNull('probe')
                ->where('updated_at', '<=', now()->subSeconds(self::STALE_SECONDS))
                ->get() as $user
        ) {
            $this->try($user, fn () => $this->proofs->tidy($user));
        }
    }

    /** Changes to many whose worker ended are gone on with. */
    public function takeUpBulk(): void
    {
        foreach (
            BulkChange::where('state', BulkChangeState::Going)
                ->where('updated_at', '<=', now()->subSeconds(self::STALE_SECONDS))
                ->get() as $change
        ) {
            $change->touch();
            CarryOutBulk::dispatch($change->id);
        }
    }

    /** Proves again those of an account that were last proven before the sweep's time. */
    public function proveAgain(Account $account, int $hours): void
    {
        foreach (
            $account
                ->ftpUsers()
                ->whereIn('state', [FtpUserState::Open, FtpUserState::Made])
                ->whereNull('pending')
                ->where(
                    static fn (Builder $when) => $when
                        ->whereNull('tried_at')
                        ->orWhere('tried_at', '<=', now()->subHours($hours)),
                )
                ->orderBy('tried_at')
                ->get() as $user
        ) {
            $this->try($user->setRelation('account', $account), fn () => $this->users->settle($user));
        }
    }

    private function try(FtpUser $user, \Closure $work): void
    {
        try {
            $work();
        } catch (\Throwable $failure) {
            if (! Problem::isExpected($failure)) {
                throw $failure;
            }
            logger()->warning("$user->login: ".$failure->getMessage());
        }
        $user->exists && $user->touch();
    }
}
