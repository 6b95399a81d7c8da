<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectories;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Support\Facades\Cache;

/**
 * Gives an account another password, at its host and here.
 *
 * The new one is kept beside the old one until a sign-in has shown which of them the host takes: an answer that was
 * lost, or a process that was killed in between, loses neither.
 */
final readonly class PasswordRenewal
{
    private const LOCKED_SECONDS = 180;

    public function __construct(private Connections $connections)
    {
    }

    /** @throws Problem with the old password still in use, or with both kept where the host cannot be asked */
    public function renew(Account $account): void
    {
        $lock = Cache::lock("renew-password-$account->id", self::LOCKED_SECONDS);
        // Two at once would each forget the password that the other has set.
        $lock->get()
            || throw new Problem(
                'The password of this account is being renewed just now. Wait for it to end, then look again.',
            );
        try {
            $this->renewLocked($account->refresh());
        } finally {
            $lock->release();
        }
    }

    /**
     * Finds out once which password the host takes, after a renewal that was killed on its way. Where it takes neither,
     * that is a person's matter from then on: every further try would be a refused sign-in.
     */
    public function settleLeft(Account $account): void
    {
        $lock = Cache::lock("renew-password-$account->id", self::LOCKED_SECONDS);
        if (! $lock->get()) {
            return;
        }
        try {
            $account->refresh()->next_secret === null || $this->settle($account);
        } catch (Problem $neither) {
            $account->update(['trouble' => FailureReason::SignInRefused->value, 'tried_at' => now()]);
            logger()->warning("$account->login at $account->host: ".$neither->getMessage());
        } finally {
            $lock->release();
        }
    }

    private function renewLocked(Account $account): void
    {
        $control = $this->connections->control($account)
            ?? throw new Problem(
                'This host has no control service. Renew the password at the provider, then type it in here.',
            );
        if ($account->next_secret !== null && $this->settle($account)) {
            return; // One that was begun before and did go through.
        }
        $account->update(['next_secret' => (new PasswordMaker)->make()->reveal()]);
        $lost = null;
        try {
            $control->renewPassword(new Secret((string) $account->next_secret));
        } catch (ControlFailure $failure) {
            $lost = $failure;
        }
        if (! $this->settle($account)) {
            throw new Problem(
                $lost === null
                    ? 'The host said that the password is renewed, but takes only the old one. It is still in use '
                        .'here; ask the provider.'
                    : Problem::words($lost).' The old password is still the right one.',
            );
        }
    }

    /** @return bool whether the new password is the one the host takes; it is then the account's */
    private function settle(Account $account): bool
    {
        $old = $this->connections->endpoint($account);
        if ($this->takes($account, new Secret((string) $account->next_secret))) {
            $account->update(['secret' => $account->next_secret, 'next_secret' => null, 'trouble' => null]);
            Record::write(
                RecordKind::PasswordRenewed,
                "Password of $account->login at $account->host renewed and proven",
                $account,
            );

            return true;
        }
        $this->takes($account, $old->password)
            || throw new Problem(
                'The host takes neither the old nor the new password just now. Both are kept; try again, or set it at '
                    .'the provider and type it in here.',
            );
        $account->update(['next_secret' => null]);

        return false;
    }

    private function takes(Account $account, Secret $password): bool
    {
        try {
            RemoteDirectories::open(
                $this->connections->endpoint($account)->signedInAs($account->login, $password),
            )->list(RemotePath::root());

            return true;
        } catch (RemoteFailure $failure) {
            return $failure->reason === FailureReason::SignInRefused ? false : throw $failure;
        }
    }
}
