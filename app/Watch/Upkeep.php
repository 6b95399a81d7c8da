<?php

declare(strict_types=1);

namespace App\Watch;

use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\ReachProofs;
use App\Models\Account;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Work\Tasks;
use Cellarium\Core\Storage\Locks;
use Illuminate\Database\Eloquent\Builder;

/** The upkeep of FTP users without anybody asking: closing at their time, finding out, proving again. */
final readonly class Upkeep
{
    /** Minutes between two tries to close what could not be closed. */
    private const AGAIN_MINUTES = 5;

    /** Minutes between two looks whether a person has done at the provider what is waited for. */
    private const BY_HAND_MINUTES = 60;

    /** Seconds after which a change that nobody works on any more counts as broken off. */
    private const STALE_SECONDS = 60;

    public function __construct(private FtpUsers $users, private ReachProofs $proofs, private Locks $locks)
    {
    }

    /** Has workers do what is due, each host's by itself: one that does not answer keeps nobody's user open. */
    public function order(): void
    {
        foreach (UpkeepKind::cases() as $kind) {
            foreach ($this->due($kind)->with('account')->get() as $user) {
                // By hand, a sign-in that is not possible yet would be refused each time, and hosts lock out who asks
                // too often.
                $waits = $kind === UpkeepKind::Settle && (self::waitsForTries($user) || $this->waitsForPerson($user));
                $waits || Tasks::order($kind->task(), $user->id);
            }
        }
    }

    /** One of what was ordered, where it is still due; twice at a time never. */
    public function carryOut(int $id, UpkeepKind $kind): void
    {
        $lock = $this->locks->acquire("upkeep-$kind->value-$id");
        if ($lock === null) {
            return;
        }
        try {
            $user = $this->due($kind)->with('account.client', 'account.sites')->find($id);
            $user === null || $this->try($user, fn () => match ($kind) {
                UpkeepKind::Close => $this->users->close($user, 'its time has come'),
                UpkeepKind::Settle => $this->settle($user),
                UpkeepKind::Tidy => $this->proofs->tidy($user),
            });
        } finally {
            $lock->release();
        }
    }

    /** Finds out what became of a change whose process ended, whose answer was lost, or which a person was to make. */
    private function settle(FtpUser $user): void
    {
        $user->update(['pending' => $user->pending?->withAnotherTry()]);
        $this->users->settle($user);
    }

    /** @return Builder<FtpUser> */
    private function due(UpkeepKind $kind): Builder
    {
        return match ($kind) {
            UpkeepKind::Close => self::closing(),
            UpkeepKind::Settle => FtpUser::whereNotNull('pending')
                ->where('state', '!=', FtpUserState::ClosingFailed)
                ->where(self::untouchedFor(...)),
            UpkeepKind::Tidy => FtpUser::whereNotNull('probe')->where(self::untouchedFor(...)),
        };
    }

    /** @return Builder<FtpUser> whose time has come, and those that could not be closed a while ago */
    private static function closing(): Builder
    {
        $busy = Deployment::whereIn('state', [
            DeploymentState::Running,
            DeploymentState::Waiting,
            DeploymentState::Queued,
        ])
            ->pluck('ftp_user_id')
            ->filter();
        $again = now()->subMinutes(self::AGAIN_MINUTES);

        return FtpUser::whereNotIn('id', $busy)->where(
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
        );
    }

    /**
     * A clock that was put back does not make it wait.
     *
     * @param  Builder<FtpUser>  $query
     */
    private static function untouchedFor(Builder $query): void
    {
        $query->where('updated_at', '<=', now()->subSeconds(self::STALE_SECONDS))->orWhere('updated_at', '>', now());
    }

    private function waitsForPerson(FtpUser $user): bool
    {
        return $this->users->byHand($user) && (
            $user->action()?->ends() !== true
            || $user->updated_at->isAfter(now()->subMinutes(self::BY_HAND_MINUTES))
        );
    }

    /** A host that is away for long is asked less and less often. */
    private static function waitsForTries(FtpUser $user): bool
    {
        $tries = $user->pending->tries ?? 0;

        return $user->updated_at->isAfter(now()->subMinutes(min(self::BY_HAND_MINUTES, 2 ** min($tries, 10))))
            && $user->updated_at->isPast();
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
