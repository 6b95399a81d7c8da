<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use App\Models\PendingChange;
use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use App\Text\When;
use Carbon\CarbonImmutable;
use Cellarium\Core\Connection\DirectoryPath;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\InstructionSheet;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\Locks;
use Illuminate\Database\UniqueConstraintViolationException;

/**
 * Makes FTP users, changes, closes and removes them, in three steps that hold wherever a process ends:
 *
 * 1. what is wanted is written down,
 * 2. the host is asked for it, by its control service or by a person with an instruction sheet,
 * 3. a proof shows what is true now, and only then is it written down as true.
 *
 * One change at a time for each account, over all processes.
 */
final readonly class FtpUsers
{
    public function __construct(
        private Connections $connections,
        private Locks $locks,
        private HostRequests $host,
        private ChangeOutcome $outcome,
    ) {
    }

    /**
     * Makes a user, and proves it where the host can be asked.
     *
     * @throws ControlFailure|Problem|RemoteFailure nothing was made
     */
    public function open(Account $account, NewFtpUser $order): FtpUser
    {
        $user = $this->begin($account, $order);
        $this->byHand($user) || $this->settle($user);

        return $user;
    }

    /**
     * The first two steps; settle() is the third. Where the host's answer was lost the user stays asked for.
     *
     * @throws ControlFailure|Problem|RemoteFailure nothing was made
     */
    public function begin(Account $account, NewFtpUser $order): FtpUser
    {
        $rules = $account->rules();
        $taken = $account->ftpUsers()->where('state', '!=', FtpUserState::Removed)->pluck('login')->all();
        $objection = $rules->objection($order->name, [$account->login, ...$taken]);
        $objection === null || throw new Problem($objection);
        $order->makesDirectory && $this->makeDirectory($account, $order->directory);
        try {
            $user = $account->ftpUsers()->create([
                'login' => $rules->full($order->name),
                'directory' => $order->directory->toString(),
                'space_limit' => $order->spaceLimit,
                'read_only' => $order->readOnly,
                'purpose' => $order->purpose,
                'state' => FtpUserState::Asked,
                'ends' => $order->ends,
                'closes_at' => $order->ends === Closing::AtTime ? $order->closesAt : null,
                'ends_reason' => $order->endsReason,
                'forgets' => $order->forgets,
                'person_id' => ($order->person ?? Person::viewer())?->id,
                'next_secret' => $order->password->reveal(),
                'pending' => PendingChange::create($order->name),
            ]);
        } catch (UniqueConstraintViolationException) {
            throw new Problem("{$rules->full($order->name)} exists already; somebody may have made it just now.");
        }
        $user->setRelation('account', $account);
        $this->ask($user);

        return $user;
    }

    /** @throws ControlFailure|Problem nothing was changed */
    public function change(FtpUser $user, ?RemotePath $directory, bool $setsSpace, ?int $spaceLimit): void
    {
        $this->want($user, PendingChange::change($directory, $setsSpace, $spaceLimit));
    }

    /** @throws ControlFailure|Problem the old password is still the right one */
    public function renew(FtpUser $user, ?Secret $password = null): void
    {
        $this->want($user, PendingChange::renew(), $password ?? (new PasswordMaker)->make());
    }

    /** @throws ControlFailure|Problem it stays closed */
    public function reopen(FtpUser $user, Closing $ends, ?CarbonImmutable $closesAt, string $endsReason = ''): void
    {
        $user->state === FtpUserState::Closed || throw new Problem("$user->login is not closed.");
        $this->want($user, PendingChange::reopen($ends, $closesAt, $endsReason), (new PasswordMaker)->make());
    }

    /** @throws ControlFailure|Problem it is still there */
    public function remove(FtpUser $user): void
    {
        $this->want($user, PendingChange::remove());
    }

    /**
     * Closes at the host and proves it by the refused sign-in; until then it counts as open.
     *
     * @return bool whether it is closed and proven; false too where a person has to do it at the provider first
     */
    public function close(FtpUser $user, string $why): bool
    {
        try {
            $this->want($user, PendingChange::close($why));
            $this->byHand($user) || $this->settle($user);
        } catch (ControlFailure|Problem $failure) {
            $this->outcome->closingFailed(
                $user,
                Problem::words($failure).' Close it at the provider, then try again here.',
                $why,
            );
        }

        return $user->state === FtpUserState::Closed;
    }

    /**
     * When it closes by itself; the host need not be asked.
     *
     * @throws Problem
     */
    public function endAt(FtpUser $user, Closing $ends, ?CarbonImmutable $closesAt, string $reason): void
    {
        $user->hasEnded() && throw new Problem("$user->login has ended already.");
        if ($ends === Closing::WithJob && $user->secret === null && $user->next_secret === null) {
            throw new Problem(
                "The password of $user->login was forgotten here, so no job can sign in as it. "
                .'Renew the password first.',
            );
        }
        $user->update(['ends' => $ends, 'closes_at' => $closesAt, 'ends_reason' => $reason]);
        Record::write(
            RecordKind::FtpUserChanged,
            When::asRecorded(static fn (): string => "$user->login closes {$user->endsWords()}"),
            $user->account,
        );
    }

    /** Whether a person has to do at the provider what is wanted. */
    public function byHand(FtpUser $user): bool
    {
        return ! Connections::hasControl($user->account);
    }

    /** What to do at the provider; null where nothing is to be done by hand. */
    public function sheet(FtpUser $user): ?InstructionSheet
    {
        $pending = $user->pending;
        if ($pending === null || ! $this->byHand($user)) {
            return null;
        }
        $company = $user->account->company;
        $password = new Secret((string) $user->next_secret);

        return match ($pending->action) {
            PendingAction::Create => InstructionSheet::create(
                $company,
                $pending->name(),
                $user->login,
                $password,
                $user->directory,
                $user->space_limit,
                $user->read_only,
            ),
            PendingAction::Renew => InstructionSheet::renew($company, $user->login, $password),
            PendingAction::Reopen => InstructionSheet::reopen($company, $user->login, $password),
            PendingAction::Change => InstructionSheet::change(
                $company,
                $user->login,
                $pending->directory()?->toString(),
                $pending->setsSpace(),
                $pending->spaceLimit(),
            ),
            PendingAction::Remove => InstructionSheet::remove($company, $user->login),
            PendingAction::Close => InstructionSheet::close($company, $user->login),
        };
    }

    /** Gives up what is still to be done at the provider; a user that was never made is forgotten. */
    public function giveUp(FtpUser $user): void
    {
        $lock = FtpUserLock::acquire($this->locks, $user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);
            ($user->action() !== null && $this->byHand($user))
                || throw new Problem("There is nothing to give up about $user->login.");
            Record::write(RecordKind::FtpUserAsked, ChangeOutcome::wanted($user).': given up', $account);
            $this->outcome->withdraw($user);
        } finally {
            $lock->release();
        }
    }

    /**
     * Proves what is true now, and what was wanted with it.
     *
     * @return bool whether everything holds as it is meant
     */
    public function settle(FtpUser $user): bool
    {
        $lock = FtpUserLock::acquire($this->locks, $user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);

            return match ($user->action()) {
                null => $this->outcome->ofNothing($user),
                PendingAction::Close, PendingAction::Remove => $this->outcome->ofEnding($user),
                default => $this->outcome->ofOpening($user),
            };
        } finally {
            $lock->release();
        }
    }

    /**
     * Writes down what is to become of it, then asks for it.
     *
     * @throws ControlFailure|Problem
     */
    private function want(FtpUser $user, PendingChange $pending, ?Secret $password = null): void
    {
        $lock = FtpUserLock::acquire($this->locks, $user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);
            $ends = $pending->action->ends();
            if (
                $user->state === FtpUserState::Removed
                || ($user->state === FtpUserState::Closed
                    && $pending->action !== PendingAction::Reopen
                    && $pending->action !== PendingAction::Remove)
            ) {
                throw new Problem(
                    "$user->login is ".($user->state === FtpUserState::Removed ? 'removed.' : 'closed already.'),
                );
            }
            if ($user->action() !== null && ! $ends) {
                throw new Problem(
                    'Something else is still to be done '
                        ."about $user->login: {$user->action()->value}. See to that first.",
                );
            }
            if ($ends && $user->next_secret !== null && $user->secret === null) {
                // Ending what was never proven: this is the only password there is.
                $password = new Secret($user->next_secret);
            }
            $user->update([
                'pending' => $pending,
                'next_secret' => $password?->reveal() ?? ($ends ? $user->next_secret : null),
                'trouble' => $ends ? $user->trouble : null,
            ]);
        } finally {
            $lock->release();
        }
        $this->ask($user);
    }

    /**
     * Asks the host for what is wanted; a person does, where it has no control service.
     *
     * @throws ControlFailure|Problem when it is certain that nothing was changed; what was wanted is then forgotten
     */
    private function ask(FtpUser $user): void
    {
        $control = $this->connections->control($user->account);
        if ($control === null) {
            Record::write(
                RecordKind::FtpUserAsked,
                ChangeOutcome::wanted($user).', to be done at the provider',
                $user->account,
                person: $user->person_id === null ? null : Person::find($user->person_id),
            );

            return;
        }
        $lock = FtpUserLock::acquire($this->locks, $user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);
            if ($user->action() === null || $user->pending?->asked === true) {
                return; // Somebody else has seen to it meanwhile.
            }
            $this->host->ask($user, $control);
            $user->update(
                ['pending' => $user->pending->withAnswer()]
                    + ($user->action() === PendingAction::Create ? ['state' => FtpUserState::Made] : []),
            );
            $user->state === FtpUserState::ClosingFailed
                || Record::write(RecordKind::FtpUserAsked, ChangeOutcome::wanted($user), $user->account);
        } catch (ControlFailure $failure) {
            $happened = $failure->reason->isCertain() ? false : $this->host->happened($user, $control);
            if ($happened === false) {
                $this->outcome->withdraw($user);
                throw $failure->reason->isCertain()
                    ? $failure
                    : new Problem(Problem::words($failure).' The host was asked again: nothing was changed there.');
            }
            $user->update([
                'trouble' => $happened === null
                    ? Problem::words($failure)
                        .' It is not known whether it was done; the host is asked again by itself.'
                    : null,
            ]);
        } finally {
            $lock->release();
        }
    }

    private function makeDirectory(Account $account, RemotePath $directory): void
    {
        DirectoryPath::make($this->connections->remote($account), $directory)
            && Record::write(RecordKind::DirectoryMade, "$directory made in $account->host for an FTP user", $account);
    }
}
