<?php

declare(strict_types=1);

namespace App\Watch;

use App\Accounts\AccountCheck;
use App\Accounts\PasswordRenewal;
use App\Backups\TakeBackup;
use App\Deployments\CarryOutDeployment;
use App\Deployments\MakePlan;
use App\Deployments\TidyDeployment;
use App\Errands\RunErrand;
use App\Failure\Problem;
use App\Files\CarryOutByHand;
use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\RecordKind;
use App\Models\Site;
use App\Queue\FairQueue;
use App\Record\Record;
use App\Storage\SiteLockNames;
use Cellarium\Core\Storage\Locks;
use Illuminate\Support\Facades\DB;

/**
 * Takes up what was broken off when a worker ended without warning.
 *
 * What is in hand is locked by the process that has it in hand; so what is marked as begun and has no lock is orphaned,
 * at once and whatever the clock says. Workers look between their jobs, see soon().
 */
final class Recovery
{
    /** After this long, what should have been begun by a job that is waiting counts as forgotten. */
    private const STALE_SECONDS = 45;

    /** Transfer workers of a killed run end by themselves within this time. */
    private const ORPHAN_SECONDS = 15;

    private const SECONDS_BETWEEN_LOOKS = 2.0;

    private const TIDY_SECONDS = 120;

    /** A change by hand that nobody has begun after this long; whoever waits behind others is not given up. */
    private const NEVER_BEGUN_SECONDS = 600;

    public function __construct(
        private readonly Locks $locks,
        private readonly AccountCheck $check,
        private readonly PasswordRenewal $renewal,
        private readonly CarryOutByHand $byHand,
    ) {
    }

    /** Called by each worker between its jobs: takes up what was orphaned, one of them every two seconds. */
    public function soon(): void
    {
        $looked = config('cellarium.var').'/locks/looked-for-orphans';
        clearstatcache(true, $looked);
        $ago = microtime(true) - (float) @filemtime($looked);
        // A clock that was put back does not keep it from looking.
        if ($ago >= self::SECONDS_BETWEEN_LOOKS || $ago < 0) {
            @touch($looked);
            $this->takeUpOrphans(0);
        }
    }

    /**
     * @param  bool  $starting  no worker runs yet, so whatever is marked as in hand is not
     * @return int how many runs were taken up
     */
    public function takeUp(bool $starting = false): int
    {
        if ($starting) {
            DB::table('jobs')->whereNotNull('reserved_at')->delete();
        }
        $stale = now()->subSeconds($starting ? 0 : self::STALE_SECONDS);
        $taken = $this->takeUpOrphans($starting ? self::ORPHAN_SECONDS : 0) + $this->takeUpForgotten($stale);
        $this->removeTokens($stale);
        $this->tidyUp();
        $this->settlePasswords($stale);

        return $taken;
    }

    /** What a swap has left beside a document root is let go of as soon as its server lets that be done. */
    private function tidyUp(): void
    {
        $left = Deployment::where('left_behind_at', '<', now()->subSeconds(self::TIDY_SECONDS))->limit(20)->get('id');
        foreach ($left as $deployment) {
            Deployment::whereKey($deployment->id)->update(['left_behind_at' => now()]);
            TidyDeployment::dispatch($deployment->id);
        }
    }

    /** @param  int  $patience  seconds to wait for what still holds a lock */
    private function takeUpOrphans(int $patience): int
    {
        $taken = 0;
        $this->letGoOfJobs($patience);
        $running = Deployment::with('site.account')->where('state', DeploymentState::Running)->orderBy('id')->get();
        foreach ($running as $deployment) {
            $taken += (int) $this->ifFree(
                SiteLockNames::forSite($deployment->site),
                $patience,
                fn (): bool => $this->takeUpRun($deployment, DeploymentState::Running),
            );
        }
        foreach (
            Backup::with('site.account')
                ->where('state', BackupState::Taking)
                ->whereNotNull('started_at')
                ->orderBy('id')
                ->get() as $backup
        ) {
            $taken += (int) $this->ifFree(SiteLockNames::forSite($backup->site), $patience, static function () use (
                $backup,
            ): bool {
                $free =
                    Backup::where(['id' => $backup->id, 'state' => BackupState::Taking])
                        ->whereNotNull('started_at')
                        ->update(['started_at' => null]) === 1;
                $free && TakeBackup::dispatch($backup->id);

                return $free;
            });
        }
        foreach (
            Deployment::where('state', DeploymentState::Drafting)
                ->whereNotNull('started_at')
                ->orderBy('id')
                ->get() as $draft
        ) {
            $taken += (int) $this->ifFree([MakePlan::lockName($draft->id)], $patience, static function () use (
                $draft,
            ): bool {
                $free = Deployment::where(['id' => $draft->id, 'state' => DeploymentState::Drafting])
                    ->whereNotNull('started_at')
                    ->update(['started_at' => null]) === 1;
                $free && MakePlan::dispatch($draft->id);

                return $free;
            });
        }
        foreach (ChangeByHand::where('state', ChangeState::Running)->orderBy('id')->get() as $change) {
            $taken += (int) $this->ifFree(CarryOutByHand::lockNames($change), $patience, function () use (
                $change,
            ): bool {
                $isOrphaned = $change->refresh()->state === ChangeState::Running;
                $isOrphaned && $this->byHand->settle($change);

                return $isOrphaned;
            });
        }
        foreach (Errand::where('state', ErrandState::Running)->orderBy('id')->pluck('id') as $id) {
            // It may have been half done, and is not begun again by itself: the one who asked decides.
            $taken += (int) $this->ifFree(
                [RunErrand::lockName($id)],
                $patience,
                static fn (): bool => Errand::where(['id' => $id, 'state' => ErrandState::Running])->update([
                    'state' => ErrandState::Failed,
                    'words' => 'The worker that did it was ended from outside, before the server had answered. Look '
                        .'what is true, and ask again.',
                ]) === 1,
            );
        }

        return $taken;
    }

    /** Jobs in the hands of workers that are no more: what they were about is taken up by what it is. */
    private function letGoOfJobs(int $patience): void
    {
        $workers = DB::table('jobs')->whereNotNull('reserved_by')->distinct()->pluck('reserved_by');
        foreach ($workers as $worker) {
            $this->ifFree(
                [FairQueue::lockName($worker)],
                $patience,
                static fn (): bool => DB::table('jobs')->where('reserved_by', $worker)->delete() > 0,
            );
        }
    }

    /** What waits for a job that nobody has any more: its worker was killed between taking the job and beginning. */
    private function takeUpForgotten(\DateTimeInterface $stale): int
    {
        $taken = 0;
        $waiting = [DeploymentState::Queued, DeploymentState::Waiting, DeploymentState::Unfinished];
        foreach (
            Deployment::with('site.account')
                ->whereIn('state', $waiting)
                ->where('held', false)
                ->where('updated_at', '<=', $stale)
                ->orderBy('id')
                ->get() as $deployment
        ) {
            $taken += (int) $this->ifFree(
                SiteLockNames::forSite($deployment->site),
                0,
                fn (): bool => $this->takeUpRun($deployment, $deployment->state),
            );
        }
        foreach (
            Backup::where('state', BackupState::Taking)
                ->whereNull('started_at')
                ->where('updated_at', '<=', $stale)
                ->get() as $backup
        ) {
            $backup->touch();
            TakeBackup::dispatch($backup->id);
        }
        foreach (
            ChangeByHand::whereIn('state', [ChangeState::Waiting, ChangeState::Counting])
                ->where('updated_at', '<=', now()->subSeconds(self::NEVER_BEGUN_SECONDS))
                ->get() as $change
        ) {
            $this->byHand->giveUp($change);
            $taken++;
        }
        foreach (Errand::where('state', ErrandState::Waiting)->where('updated_at', '<=', $stale)->get() as $errand) {
            $errand->touch();
            RunErrand::order($errand);
        }
        foreach (
            Deployment::where('state', DeploymentState::Drafting)
                ->whereNull('started_at')
                ->where('updated_at', '<=', $stale)
                ->get() as $draft
        ) {
            $draft->touch();
            MakePlan::dispatch($draft->id);
        }

        return $taken;
    }

    private function takeUpRun(Deployment $deployment, DeploymentState $state): bool
    {
        // Queued again before the lock is let go, so that nobody else takes it for orphaned.
        $queued = Deployment::where(['id' => $deployment->id, 'state' => $state])->update([
            'state' => $state === DeploymentState::Running ? DeploymentState::Queued : $state,
            'updated_at' => now(),
        ]);
        if ($queued !== 1) {
            return false;
        }
        CarryOutDeployment::dispatch($deployment->id);
        Record::write(
            RecordKind::DeploymentTakenUp,
            "{$deployment->site->domain}: the run was broken off and is taken up again",
            $deployment->site,
            ['deployment' => $deployment->id],
        );

        return true;
    }

    /**
     * @param  list<string>  $names
     * @param  \Closure(): bool  $work
     */
    private function ifFree(array $names, int $patience, \Closure $work): bool
    {
        $until = hrtime(true) / 1e9 + $patience;
        while (($lock = $this->locks->acquire(...$names)) === null && hrtime(true) / 1e9 < $until) {
            usleep(50_000);
        }
        if ($lock === null) {
            return false;
        }
        try {
            return $work();
        } finally {
            $lock->release();
        }
    }

    private function settlePasswords(\DateTimeInterface $stale): void
    {
        foreach (
            Account::with('client', 'sites')
                ->whereNotNull('next_secret')
                ->whereNull('trouble')
                ->where('updated_at', '<=', $stale)
                ->get() as $account
        ) {
            try {
                $this->renewal->settleLeft($account);
            } catch (\Throwable $failure) {
                if (! Problem::isExpected($failure)) {
                    throw $failure;
                }
                $account->touch();
                logger()->warning(
                    "Which password $account->host takes for $account->login is not known yet: "
                        .$failure->getMessage(),
                );
            }
        }
    }

    private function removeTokens(\DateTimeInterface $stale): void
    {
        foreach (Site::with('account')->whereNotNull('token')->where('updated_at', '<=', $stale)->get() as $site) {
            try {
                $this->check->removeToken($site);
            } catch (\Throwable $failure) {
                if (! Problem::isExpected($failure)) {
                    throw $failure;
                }
                $site->touch();
                logger()->warning("The token $site->token of $site->domain is still there: ".$failure->getMessage());
            }
        }
    }
}
