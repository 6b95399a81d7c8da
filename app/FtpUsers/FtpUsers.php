<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Deployments\RunFiles;
use App\Hosting\Connections;
use App\Models\Account;
use App\Models\FtpUser;
use App\Models\Person;
use App\Problem;
use App\Record\Record;
use Carbon\CarbonImmutable;
use Cellarium\Core\Account\ControlFailure;
use Cellarium\Core\Account\HostedUser;
use Cellarium\Core\Account\HostingControl;
use Cellarium\Core\Account\InstructionSheet;
use Cellarium\Core\Account\UserChange;
use Cellarium\Core\Connection\EntryKind;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\AccountLock;
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
    private const PATIENCE_SECONDS = 45;

    /** Users of one account that are taken note of; no host has more, and a hostile one may say so. */
    private const MOST_TOLD = 500;

    public function __construct(
        private Connections $connections,
        private RunFiles $files,
        private ReachProofs $proofs,
    ) {
    }

    /**
     * Makes a user, and proves it where the host can be asked.
     *
     * @throws ControlFailure|Problem|RemoteFailure nothing was made
     */
    public function open(Account $account, Order $order): FtpUser
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
    public function begin(Account $account, Order $order): FtpUser
    {
        $rules = $account->rules();
        $taken = $account->ftpUsers()->where('state', '!=', FtpUser::REMOVED)->pluck('login')->all();
        $objection = $rules->objection($order->name, [$account->login, ...$taken]);
        $objection === null || throw new Problem($objection);
        $order->makesDirectory && $this->makeDirectory($account, $order->directory);
        try {
            $user = $account->ftpUsers()->create([
                'login' => $rules->full($order->name), 'directory' => $order->directory->toString(), 'space_limit' => $order->spaceLimit, 'read_only' => $order->readOnly, 'purpose' => $order->purpose,
                'state' => FtpUser::ASKED, 'ends' => $order->ends, 'closes_at' => $order->ends === FtpUser::BY_TIME ? $order->closesAt : null, 'ends_reason' => $order->endsReason, 'forgets' => $order->forgets,
                'person_id' => $order->person?->id, 'next_secret' => $order->password->reveal(), 'wanted' => ['action' => 'create', 'name' => $order->name],
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
        $this->want($user, ['action' => 'change'] + ($directory === null ? [] : ['directory' => $directory->toString()]) + ($setsSpace ? ['space_limit' => $spaceLimit] : []));
    }

    /** @throws ControlFailure|Problem the old password is still the right one */
    public function renew(FtpUser $user, ?Secret $password = null): void
    {
        $this->want($user, ['action' => 'renew'], $password ?? (new PasswordMaker)->make());
    }

    /** @throws ControlFailure|Problem it stays closed */
    public function reopen(FtpUser $user, string $ends, ?CarbonImmutable $closesAt, string $endsReason = ''): void
    {
        $user->state === FtpUser::CLOSED || throw new Problem("$user->login is not closed.");
        $this->want($user, ['action' => 'reopen', 'ends' => $ends, 'closes_at' => $closesAt?->toIso8601String(), 'ends_reason' => $endsReason], (new PasswordMaker)->make());
    }

    /** @throws ControlFailure|Problem it is still there */
    public function remove(FtpUser $user): void
    {
        $this->want($user, ['action' => 'remove']);
    }

    /**
     * Closes at the host and proves it by the refused sign-in; until then it counts as open.
     *
     * @return bool whether it is closed and proven; false too where a person has to do it at the provider first
     */
    public function close(FtpUser $user, string $why): bool
    {
        try {
            $this->want($user, ['action' => 'close', 'why' => $why]);
            $this->byHand($user) || $this->settle($user);
        } catch (ControlFailure|Problem $failure) {
            $this->closingFailed($user, Problem::words($failure).' Close it at the provider, then try again here.', $why);
        }

        return $user->state === FtpUser::CLOSED;
    }

    /**
     * Takes note of open users that the host has and nobody here made: they can touch as much as any other.
     *
     * @param  list<HostedUser>  $told  all the host has
     */
    public function takeNote(Account $account, array $told): void
    {
        $lock = $this->lock($account->id);
        try {
            $known = $account->ftpUsers()->where('state', '!=', FtpUser::REMOVED)->get()->keyBy('login');
            foreach (array_slice($told, 0, self::MOST_TOLD) as $user) {
                $mine = $known->get($user->login);
                if (! $user->open || ($mine !== null && ! $mine->hasEnded()) || $mine?->action() !== null || RemotePath::tryFromString($user->directory) === null) {
                    continue;
                }
                if ($mine !== null) {
                    $mine->update(['state' => FtpUser::MADE, 'directory' => RemotePath::fromString($user->directory)->toString(), 'ends' => FtpUser::NEVER, 'ends_reason' => 'it was opened again elsewhere', 'closes_at' => null, 'closed_at' => null, 'refusal_proven_at' => null, 'reach_proven_at' => null, 'found_at' => now()]);
                    Record::write('ftp_user_found', "$user->login was opened again at $account->host, and not from here", $account);

                    continue;
                }
                $account->ftpUsers()->create([
                    'login' => mb_substr($user->login, 0, 255), 'directory' => RemotePath::fromString($user->directory)->toString(), 'space_limit' => $user->spaceLimit, 'read_only' => $user->readOnly, 'state' => FtpUser::MADE,
                    'ends' => FtpUser::NEVER, 'ends_reason' => 'it was not made here', 'found_at' => now(), 'seen_use' => $user->lastUsed === null ? null : mb_substr($user->lastUsed, 0, 40),
                    'used_at' => $user->lastUsed === null ? null : rescue(static fn (): CarbonImmutable => CarbonImmutable::parse($user->lastUsed)->min(now()), null, false),
                ]);
                Record::write('ftp_user_found', "$account->host has an FTP user that was not made here: $user->login, landing in $user->directory", $account);
            }
        } finally {
            $lock->release();
        }
    }

    /**
     * When it closes by itself; the host need not be asked.
     *
     * @throws Problem
     */
    public function endAt(FtpUser $user, string $ends, ?CarbonImmutable $closesAt, string $reason): void
    {
        $user->hasEnded() && throw new Problem("$user->login has ended already.");
        $user->update(['ends' => $ends, 'closes_at' => $closesAt, 'ends_reason' => $reason]);
        Record::write('ftp_user_changed', "$user->login closes {$user->endsWords()}", $user->account);
    }

    /** Whether a person has to do at the provider what is wanted. */
    public function byHand(FtpUser $user): bool
    {
        return $this->connections->control($user->account) === null;
    }

    /** What to do at the provider; null where nothing is to be done by hand. */
    public function sheet(FtpUser $user): ?InstructionSheet
    {
        if ($user->action() === null || ! $this->byHand($user)) {
            return null;
        }
        $company = $user->account->company;
        $wanted = $user->wanted ?? [];
        $password = new Secret((string) $user->next_secret);

        return match ($user->action()) {
            'create' => InstructionSheet::create($company, $wanted['name'], $user->login, $password, $user->directory, $user->space_limit, $user->read_only),
            'renew' => InstructionSheet::renew($company, $user->login, $password),
            'reopen' => InstructionSheet::reopen($company, $user->login, $password),
            'change' => InstructionSheet::change($company, $user->login, $wanted['directory'] ?? null, array_key_exists('space_limit', $wanted), $wanted['space_limit'] ?? null),
            'remove' => InstructionSheet::remove($company, $user->login),
            default => InstructionSheet::close($company, $user->login),
        };
    }

    /** Gives up what is still to be done at the provider; a user that was never made is forgotten. */
    public function giveUp(FtpUser $user): void
    {
        $lock = $this->lock($user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);
            $user->action() !== null && $this->byHand($user) || throw new Problem("There is nothing to give up about $user->login.");
            Record::write('ftp_user_asked', "{$this->sentence($user)}: given up", $account);
            $this->withdraw($user);
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
        $lock = $this->lock($user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);

            return match ($user->action()) {
                null => $this->prove($user),
                'close', 'remove' => $this->settleEnd($user),
                default => $this->settleOpen($user),
            };
        } finally {
            $lock->release();
        }
    }

    /**
     * @param  array<string, mixed>  $wanted
     *
     * @throws ControlFailure|Problem
     */
    private function want(FtpUser $user, array $wanted, ?Secret $password = null): void
    {
        $lock = $this->lock($user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);
            $ends = in_array($wanted['action'], ['close', 'remove'], true);
            if ($user->state === FtpUser::REMOVED || ($user->state === FtpUser::CLOSED && $wanted['action'] !== 'reopen' && $wanted['action'] !== 'remove')) {
                throw new Problem("$user->login is ".($user->state === FtpUser::REMOVED ? 'removed.' : 'closed already.'));
            }
            if ($user->action() !== null && ! $ends) {
                throw new Problem("Something else is still to be done about $user->login: {$user->action()}. See to that first.");
            }
            if ($ends && $user->next_secret !== null && $user->secret === null) {
                $password = new Secret($user->next_secret); // Ending what was never proven: this is the only password there is.
            }
            $user->update(['wanted' => $wanted, 'next_secret' => $password?->reveal() ?? ($ends ? $user->next_secret : null), 'trouble' => $ends ? $user->trouble : null]);
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
            Record::write('ftp_user_asked', $this->sentence($user).', to be done at the provider', $user->account, person: $user->person_id === null ? null : Person::find($user->person_id));

            return;
        }
        $lock = $this->lock($user->account_id);
        try {
            $account = $user->account;
            $user->refresh()->setRelation('account', $account);
            if ($user->action() === null || isset($user->wanted['asked'])) {
                return; // Somebody else has seen to it meanwhile.
            }
            $this->askLinked($user, $control);
            $user->update(['wanted' => ['asked' => true] + ($user->wanted ?? [])] + ($user->action() === 'create' ? ['state' => FtpUser::MADE] : []));
            $user->state === FtpUser::CLOSING_FAILED || Record::write('ftp_user_asked', $this->sentence($user), $user->account);
        } catch (ControlFailure $failure) {
            $happened = $failure->reason->isCertain() ? false : $this->happened($user, $control);
            if ($happened === false) {
                $this->withdraw($user);
                throw $failure->reason->isCertain() ? $failure : new Problem(Problem::words($failure).' The host was asked again: nothing was changed there.');
            }
            $user->update(['trouble' => $happened === null ? Problem::words($failure).' It is not known whether it was done; the host is asked again by itself.' : null]);
        } finally {
            $lock->release();
        }
    }

    /** @throws ControlFailure */
    private function askLinked(FtpUser $user, HostingControl $control): void
    {
        $wanted = $user->wanted ?? [];
        if ($user->action() === 'create') {
            $made = $control->createFtpUser($wanted['name'], new Secret((string) $user->next_secret), $user->path(), $user->space_limit, $user->read_only);
            $made->login === $user->login || $user->update(['login' => $made->login]);

            return;
        }
        if ($user->action() === 'remove') {
            $this->knowPassword($user, $control);
            $control->removeFtpUser($user->login);

            return;
        }
        if ($user->action() === 'close') {
            $this->knowPassword($user, $control);
        }
        $password = in_array($user->action(), ['renew', 'reopen'], true) ? new Secret((string) $user->next_secret) : null;
        $control->changeFtpUser($user->login, new UserChange(
            $password, isset($wanted['directory']) ? RemotePath::fromString($wanted['directory']) : null, array_key_exists('space_limit', $wanted), $wanted['space_limit'] ?? null,
            match ($user->action()) {
                'close' => false,
                'reopen' => true,
                default => null,
            },
        ));
    }

    /** A refused sign-in proves something only with the right password; where it was forgotten, the host is given another. */
    private function knowPassword(FtpUser $user, HostingControl $control): void
    {
        if ($user->secret !== null || $user->state === FtpUser::CLOSED) {
            return;
        }
        // One that was thought of before may never have reached the host; setting it twice does no harm.
        $password = $user->next_secret === null ? (new PasswordMaker)->make() : new Secret($user->next_secret);
        $user->update(['next_secret' => $password->reveal()]);
        $control->changeFtpUser($user->login, new UserChange($password));
        $user->update(['secret' => $password->reveal(), 'next_secret' => null]);
    }

    /** Whether the host shows that what is wanted was done; null where it cannot be asked, or cannot show it. */
    private function happened(FtpUser $user, HostingControl $control): ?bool
    {
        try {
            $told = $control->ftpUser($user->login);
        } catch (ControlFailure) {
            return null;
        }
        $wanted = $user->wanted ?? [];

        return match ($user->action()) {
            'create' => $told !== null,
            'remove' => $told === null,
            'close' => $told === null || ! $told->open,
            'reopen' => $told !== null && $told->open,
            'change' => $told !== null && (! isset($wanted['directory']) || $told->directory === $wanted['directory']) && (! array_key_exists('space_limit', $wanted) || $told->spaceLimit === $wanted['space_limit']),
            default => $told === null ? false : null, // A password shows in signing in only.
        };
    }

    /** Forgets what was wanted, because it did not come about. */
    private function withdraw(FtpUser $user): void
    {
        if ($user->action() === 'create') {
            $user->delete();

            return;
        }
        $user->update(['wanted' => null, 'next_secret' => null]);
    }

    private function settleOpen(FtpUser $user): bool
    {
        $control = $this->connections->control($user->account);
        if ($control !== null && ! isset($user->wanted['asked']) && $user->action() !== 'renew') {
            // The answer was lost, or the process ended before it came.
            $happened = $this->happened($user, $control);
            if ($happened === null) {
                $user->update(['tried_at' => now()]);

                return false;
            }
            if (! $happened) {
                Record::write('ftp_user_asked', "{$this->sentence($user)}: broken off before the host had it; nothing was changed there", $user->account);
                $this->withdraw($user);

                return false;
            }
        }
        $evidence = $this->proofs->open($user, $user->next_secret === null ? null : new Secret($user->next_secret));
        if ($evidence->holds()) {
            return $this->adopt($user);
        }
        $broken = $evidence->broken();
        $refused = $broken?->name === 'sign_in' && $evidence->decided();
        if ($control === null) {
            $user->update(['trouble' => $refused ? 'The sign-in is refused: it was not done at the provider yet, or typed differently there.' : "$broken?->sentence. $broken?->next"] + ($evidence->decided() && ! $refused ? ['proof_failed_at' => now()] : []));
        } elseif ($refused && ! isset($user->wanted['asked'])) {
            // Whoever made it did so with another password, or a renewal never arrived.
            $words = $user->action() === 'create' ? "$user->login exists at the host, but was not made from here: its password is another. Choose another login." : "The password of $user->login was not renewed: the host does not take the new one.";
            Record::write('ftp_user_asked', $words, $user->account);
            $this->withdraw($user);

            return $user->exists && $this->prove($user); // With the old password: is it really the right one still?
        } elseif ($evidence->decided()) {
            $this->adoptUnproven($user, "$broken?->sentence");
        } else {
            $user->update(['trouble' => "Could not be proven yet: $broken?->sentence"]);
        }

        return false;
    }

    /** What was wanted is true now. */
    private function adopt(FtpUser $user): bool
    {
        $what = match ($user->action()) {
            'create' => "FTP user $user->login created",
            'renew' => "Password of $user->login renewed",
            'reopen' => "FTP user $user->login opened again",
            default => "FTP user $user->login changed",
        };
        if ($user->next_secret !== null) {
            $this->withdrawLinks($user); // They hold a password that is none any more.
        }
        $user->update($this->adopted($user) + ['state' => FtpUser::OPEN, 'reach_proven_at' => now(), 'proof_failed_at' => null, 'trouble' => null]);
        Record::write('ftp_user_proven', "$what; landing in $user->directory and proven by signing in: {$user->reach()->sentence()}", $user->account);

        return true;
    }

    /** The host did something, and it is not what was wanted: that is written down as it is. */
    private function adoptUnproven(FtpUser $user, string $trouble): void
    {
        $user->update($this->adopted($user) + ['state' => $user->state === FtpUser::OPEN ? FtpUser::OPEN : FtpUser::MADE, 'proof_failed_at' => now(), 'trouble' => $trouble]);
        Record::write('ftp_user_proven', "Reach of $user->login not proven: $trouble", $user->account);
    }

    /** @return array<string, mixed> */
    private function adopted(FtpUser $user): array
    {
        $wanted = $user->wanted ?? [];
        $fresh = $user->next_secret !== null ? ['secret' => $user->next_secret, 'next_secret' => null, 'handed_over_at' => null] : [];
        $open = $user->action() !== 'reopen' ? [] : [
            'ends' => $wanted['ends'], 'closes_at' => $wanted['closes_at'] === null ? null : CarbonImmutable::parse($wanted['closes_at']), 'ends_reason' => $wanted['ends_reason'], 'closed_at' => null, 'refusal_proven_at' => null, 'used_at' => now(),
        ];

        return ['wanted' => null] + $fresh + $open + (isset($wanted['directory']) ? ['directory' => $wanted['directory']] : []) + (array_key_exists('space_limit', $wanted) ? ['space_limit' => $wanted['space_limit']] : []);
    }

    private function settleEnd(FtpUser $user): bool
    {
        $removes = $user->action() === 'remove';
        $why = $user->wanted['why'] ?? 'by hand';
        $control = $this->connections->control($user->account);
        if ($control !== null && ! isset($user->wanted['asked']) && $this->happened($user, $control) !== true) {
            try {
                $this->askLinked($user, $control);
            } catch (ControlFailure $failure) {
                $this->closingFailed($user, Problem::words($failure), $why);

                return false;
            }
        }
        if ($user->secret === null && $user->next_secret !== null) {
            $user->update(['secret' => $user->next_secret, 'next_secret' => null]);
        }
        if ($user->secret === null) {
            return $this->endAsTold($user, $removes, $why);
        }
        $evidence = $this->proofs->closed($user);
        if (! $evidence->holds()) {
            $broken = $evidence->broken();
            $control === null && $evidence->decided()
                ? $user->update(['trouble' => "$user->login can still sign in: it was not done at the provider yet."])
                : $this->closingFailed($user, (string) $broken?->sentence, $why);

            return false;
        }
        if ($control !== null && $this->happened($user, $control) === false) {
            $this->closingFailed($user, $removes ? "The host still knows $user->login, though its sign-in is refused." : 'The host says that it is still open, though its sign-in is refused.', $why);

            return false;
        }
        $this->end($user, $removes, 'its sign-in is refused', $why);

        return true;
    }

    /** One that was closed before has no password any more; whether it is gone the host tells, or nobody does. */
    private function endAsTold(FtpUser $user, bool $removes, string $why): bool
    {
        $control = $this->connections->control($user->account);
        try {
            if ($control !== null && ($told = $control->ftpUser($user->login)) !== null && ($removes || $told->open)) {
                $this->closingFailed($user, "The host still knows $user->login.", $why);

                return false;
            }
        } catch (ControlFailure $failure) {
            $this->closingFailed($user, Problem::words($failure), $why);

            return false;
        }
        $this->end($user, $removes, $control === null ? 'its sign-in was refused when it was closed' : 'the host knows it no more', $why);

        return true;
    }

    private function end(FtpUser $user, bool $removes, string $proof, string $why): void
    {
        $user->update([
            'state' => $removes ? FtpUser::REMOVED : FtpUser::CLOSED, 'closed_at' => $user->closed_at ?? now(), 'refusal_proven_at' => now(), 'secret' => null, 'next_secret' => null, 'wanted' => null, 'trouble' => null, 'proof_failed_at' => null,
        ]);
        $this->withdrawLinks($user);
        Record::write($removes ? 'ftp_user_removed' : 'ftp_user_closed', $removes ? "FTP user $user->login removed; $proof" : "FTP user $user->login closed ($why); $proof", $user->account);
    }

    private function withdrawLinks(FtpUser $user): void
    {
        $user->handOvers()->whereNotNull('sealed')->update(['sealed' => null, 'withdrawn_at' => now()]);
    }

    private function closingFailed(FtpUser $user, string $trouble, string $why): void
    {
        $before = $user->trouble;
        $user->update(['state' => $user->state === FtpUser::CLOSED ? FtpUser::CLOSED : FtpUser::CLOSING_FAILED, 'trouble' => $trouble, 'tried_at' => now()]);
        $before === $trouble || Record::write('ftp_user_closed', "FTP user $user->login could not be closed ($why): $trouble", $user->account);
    }

    /** Nothing is wanted; what is meant is held against what is. */
    private function prove(FtpUser $user): bool
    {
        if ($user->hasEnded()) {
            return true;
        }
        $was = $user->isProven();
        $evidence = $this->proofs->open($user);
        if ($evidence->holds()) {
            // What the host says of a user whose password nobody here ever had is no proof.
            $user->update(($user->found_at !== null && $user->secret === null ? [] : ['state' => $user->state === FtpUser::MADE ? FtpUser::OPEN : $user->state, 'reach_proven_at' => now()]) + ['proof_failed_at' => null] + ($user->state === FtpUser::CLOSING_FAILED ? [] : ['trouble' => null]));
            $was || Record::write('ftp_user_proven', "Reach of $user->login proven by signing in: {$user->reach()->sentence()}", $user->account);

            return true;
        }
        $broken = $evidence->broken();
        $user->update(['trouble' => ($evidence->decided() ? '' : 'Could not be tried: ')."$broken?->sentence"] + ($evidence->decided() ? ['proof_failed_at' => now()] : []));
        if ($evidence->decided() && $was) {
            Record::write('ftp_user_proven', "Reach of $user->login no longer holds: $user->trouble", $user->account);
        }

        return false;
    }

    private function makeDirectory(Account $account, RemotePath $directory): void
    {
        $remote = $this->connections->remote($account);
        $place = RemotePath::root();
        $made = false;
        foreach ($directory->depth() === 0 ? [] : explode('/', substr($directory->toString(), 1)) as $name) {
            $place = $place->child($name);
            $entry = $made ? null : $remote->stat($place);
            $entry === null || $entry->kind === EntryKind::Directory || throw new Problem("$place is not a directory.");
            if ($entry === null) {
                $remote->makeDirectory($place);
                $made = true;
            }
        }
        $made === false || Record::write('directory_made', "$directory made in $account->host for an FTP user", $account);
    }

    private function sentence(FtpUser $user): string
    {
        return match ($user->action()) {
            'create' => "FTP user $user->login asked for, landing in $user->directory",
            'renew' => "Another password for $user->login asked for",
            'change' => "Change of $user->login asked for".(isset($user->wanted['directory']) ? ", landing in {$user->wanted['directory']}" : ''),
            'reopen' => "Opening of $user->login asked for",
            'remove' => "Removal of $user->login asked for",
            default => "Closing of $user->login asked for",
        };
    }

    /** A lock on a file and not on a clock: it goes with the process that holds it, whatever time it is. */
    private function lock(int $account): AccountLock
    {
        $until = hrtime(true) + self::PATIENCE_SECONDS * 1_000_000_000;
        while (($lock = AccountLock::tryFor($this->files->locks(), "ftp-users-$account")) === null) {
            hrtime(true) < $until || throw new Problem('Another change to the FTP users of this account is going on. Try again in a moment.');
            usleep(20_000);
        }

        return $lock;
    }
}
