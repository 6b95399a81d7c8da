<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Accounts\AccountCheck;
use App\Accounts\PasswordRenewal;
use App\Models\Account;
use App\Models\Backup;
use App\Models\Deployment;
use App\Models\Site;
use App\Problem;
use App\Record\Record;
use Cellarium\Core\Transfer\AccountLock;
use Illuminate\Support\Facades\DB;

/** Takes up what was broken off when a worker ended without warning. */
final readonly class Recovery
{
    private const STALE_SECONDS = 45;

    /** Transfer workers of a killed run end by themselves within this time. */
    private const ORPHAN_SECONDS = 15;

    public function __construct(
        private RunFiles $files,
        private AccountCheck $check,
        private PasswordRenewal $renewal,
    ) {
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
        $taken = 0;
        foreach (Deployment::with('site.account')->whereIn('state', [Deployment::QUEUED, Deployment::WAITING, Deployment::RUNNING, Deployment::UNFINISHED])->where('held', false)->where('updated_at', '<=', $stale)->orderBy('id')->get() as $deployment) {
            $lock = $this->lock((string) $deployment->site->account_id, $starting ? self::ORPHAN_SECONDS : 0);
            if ($lock === null) {
                continue;
            }
            $lock->release();
            $deployment->touch();
            CarryOutDeployment::dispatch($deployment->id);
            Record::write('taken_up', "{$deployment->site->domain}: the run was broken off and is taken up again", $deployment->site, ['deployment' => $deployment->id]);
            $taken++;
        }
        Backup::where('state', Backup::TAKING)->where('updated_at', '<=', now()->subSeconds($starting ? 0 : 3600))
            ->update(['state' => Backup::FAILED, 'trouble' => 'The worker that took it ended before it was done. Take it again.']);

        $this->removeTokens($stale);
        $this->settlePasswords($stale);

        return $taken;
    }

    private function settlePasswords(\DateTimeInterface $stale): void
    {
        foreach (Account::with('client', 'sites')->whereNotNull('next_secret')->whereNull('trouble')->where('updated_at', '<=', $stale)->get() as $account) {
            try {
                $this->renewal->settleLeft($account);
            } catch (\Throwable $failure) {
                if (! Problem::isExpected($failure)) {
                    throw $failure;
                }
                $account->touch();
                logger()->warning("Which password $account->host takes for $account->login is not known yet: ".$failure->getMessage());
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

    private function lock(string $account, int $seconds): ?AccountLock
    {
        $until = microtime(true) + $seconds;
        while (($lock = AccountLock::tryFor($this->files->locks(), $account)) === null && microtime(true) < $until) {
            usleep(50_000);
        }

        return $lock;
    }
}
