<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Proof\Evidence;

/**
 * The outcome of a change wanted of an FTP user: found out by being it, and by asking the host where it can be asked,
 * and only then written down as true. Whoever calls it holds the lock of the account's FTP users.
 */
final readonly class ChangeOutcome
{
    public function __construct(
        private Connections $connections,
        private ReachProofs $proofs,
        private HostRequests $host,
    ) {
    }

    /** @return bool whether what was wanted is true now, by being the user */
    public function ofOpening(FtpUser $user): bool
    {
        $control = $this->connections->control($user->account);
        if ($control !== null && $user->pending?->asked === false && $user->action() !== PendingAction::Renew) {
            // The answer was lost, or the process ended before it came.
            $happened = $this->host->happened($user, $control);
            if ($happened === null) {
                $user->update(['tried_at' => now()]);

                return false;
            }
            if (! $happened) {
                Record::write(
                    RecordKind::FtpUserAsked,
                    self::wanted($user).': broken off before the host had it; nothing was changed there',
                    $user->account,
                );
                $this->withdraw($user);

                return false;
            }
        }
        $evidence = $this->proofs->open($user, $user->next_secret === null ? null : new Secret($user->next_secret));

        return $evidence->holds() ? $this->adopt($user) : $this->notAsWanted($user, $evidence, $control === null);
    }

    private function notAsWanted(FtpUser $user, Evidence $evidence, bool $byHand): bool
    {
        $broken = $evidence->broken();
        $refused = $broken?->name === 'sign_in' && $evidence->decided();
        if ($byHand) {
            $user->update(
                [
                    'trouble' => $refused
                        ? 'The sign-in is refused: it was not done at the provider yet, or typed differently there.'
                        : "$broken?->sentence. $broken?->next",
                ] + ($evidence->decided() && ! $refused ? ['proof_failed_at' => now()] : []),
            );
        } elseif ($refused && $user->pending?->asked === false) {
            // Whoever made it did so with another password, or a renewal never arrived.
            $words = $user->action() === PendingAction::Create
                ? "$user->login exists at the host, but was not made from here: its password is another. Choose "
                    .'another login.'
                : "The password of $user->login was not renewed: the host does not take the new one.";
            Record::write(RecordKind::FtpUserAsked, $words, $user->account);
            $this->withdraw($user);

            return $user->exists && $this->ofNothing($user); // With the old password: is it really the right one still?
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
            PendingAction::Create => "FTP user $user->login created",
            PendingAction::Renew => "Password of $user->login renewed",
            PendingAction::Reopen => "FTP user $user->login opened again",
            default => "FTP user $user->login changed",
        };
        if ($user->next_secret !== null) {
            $this->withdrawLinks($user); // They hold a password that is none any more.
        }
        $user->update(
            $this->adopted($user) + [
                'state' => FtpUserState::Open,
                'reach_proven_at' => now(),
                'proof_failed_at' => null,
                'trouble' => null,
            ],
        );
        Record::write(
            RecordKind::FtpUserProven,
            "$what; landing in $user->directory and proven by signing in: {$user->reach()->sentence()}",
            $user->account,
        );

        return true;
    }

    /** The host did something, and it is not what was wanted: that is written down as it is. */
    private function adoptUnproven(FtpUser $user, string $trouble): void
    {
        $user->update(
            $this->adopted($user) + [
                'state' => $user->state === FtpUserState::Open ? FtpUserState::Open : FtpUserState::Made,
                'proof_failed_at' => now(),
                'trouble' => $trouble,
            ],
        );
        Record::write(RecordKind::FtpUserProven, "Reach of $user->login not proven: $trouble", $user->account);
    }

    /** @return array<string, mixed> */
    private function adopted(FtpUser $user): array
    {
        $fresh = $user->next_secret !== null
            ? ['secret' => $user->next_secret, 'next_secret' => null, 'handed_over_at' => null]
            : [];

        return ['pending' => null] + $fresh + ($user->pending?->adopted() ?? []);
    }

    /** @return bool whether it has ended now, by its refusal */
    public function ofEnding(FtpUser $user): bool
    {
        $removes = $user->action() === PendingAction::Remove;
        $why = $user->pending?->why() ?? 'by hand';
        $control = $this->connections->control($user->account);
        if ($control !== null && $user->pending?->asked === false && $this->host->happened($user, $control) !== true) {
            try {
                $this->host->ask($user, $control);
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
        if ($control !== null && $this->host->happened($user, $control) === false) {
            $this->closingFailed(
                $user,
                $removes
                    ? "The host still knows $user->login, though its sign-in is refused."
                    : 'The host says that it is still open, though its sign-in is refused.',
                $why,
            );

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
        $this->end(
            $user,
            $removes,
            $control === null ? 'its sign-in was refused when it was closed' : 'the host knows it no more',
            $why,
        );

        return true;
    }

    private function end(FtpUser $user, bool $removes, string $proof, string $why): void
    {
        $user->update([
            'state' => $removes ? FtpUserState::Removed : FtpUserState::Closed,
            'closed_at' => $user->closed_at ?? now(),
            'refusal_proven_at' => now(),
            'secret' => null,
            'next_secret' => null,
            'pending' => null,
            'trouble' => null,
            'proof_failed_at' => null,
        ]);
        $this->withdrawLinks($user);
        Record::write(
            $removes ? RecordKind::FtpUserRemoved : RecordKind::FtpUserClosed,
            $removes ? "FTP user $user->login removed; $proof" : "FTP user $user->login closed ($why); $proof",
            $user->account,
        );
    }

    private function withdrawLinks(FtpUser $user): void
    {
        $user->handOvers()->whereNotNull('sealed')->update(['sealed' => null, 'withdrawn_at' => now()]);
    }

    public function closingFailed(FtpUser $user, string $trouble, string $why): void
    {
        $before = $user->trouble;
        $user->update([
            'state' => $user->state === FtpUserState::Closed ? FtpUserState::Closed : FtpUserState::ClosingFailed,
            'trouble' => $trouble,
            'tried_at' => now(),
        ]);
        $before === $trouble
            || Record::write(
                RecordKind::FtpUserClosed,
                "FTP user $user->login could not be closed ($why): $trouble",
                $user->account,
            );
    }

    /** Nothing is wanted; what is meant is held against what is. */
    public function ofNothing(FtpUser $user): bool
    {
        if ($user->hasEnded()) {
            return true;
        }
        $was = $user->isProven();
        $evidence = $this->proofs->open($user);
        if ($evidence->holds()) {
            // What the host says of a user whose password nobody here has is no proof by being it.
            $byBeing = $user->secret !== null;
            $user->update(
                (! $byBeing
                    ? []
                    : [
                        'state' => $user->state === FtpUserState::Made ? FtpUserState::Open : $user->state,
                        'reach_proven_at' => now(),
                    ]) + ['proof_failed_at' => null]
                    + ($user->state === FtpUserState::ClosingFailed ? [] : ['trouble' => null]),
            );
            $was
                || ! $byBeing
                || Record::write(
                    RecordKind::FtpUserProven,
                    "Reach of $user->login proven by signing in: {$user->reach()->sentence()}",
                    $user->account,
                );

            return true;
        }
        $broken = $evidence->broken();
        $user->update(
            ['trouble' => ($evidence->decided() ? '' : 'Could not be tried: ')."$broken?->sentence"]
                + ($evidence->decided() ? ['proof_failed_at' => now()] : []),
        );
        if ($evidence->decided() && $was) {
            Record::write(
                RecordKind::FtpUserProven,
                "Reach of $user->login no longer holds: $user->trouble",
                $user->account,
            );
        }

        return false;
    }

    /** Forgets what was wanted, because it did not come about. */
    public function withdraw(FtpUser $user): void
    {
        if ($user->action() === PendingAction::Create) {
            $user->delete();

            return;
        }
        $user->update(['pending' => null, 'next_secret' => null]);
    }

    public static function wanted(FtpUser $user): string
    {
        return match ($user->action()) {
            PendingAction::Create => "FTP user $user->login asked for, landing in $user->directory",
            PendingAction::Renew => "Another password for $user->login asked for",
            PendingAction::Change => "Change of $user->login asked for"
                .($user->pending?->directory() === null ? '' : ", landing in {$user->pending->directory()}"),
            PendingAction::Reopen => "Opening of $user->login asked for",
            PendingAction::Remove => "Removal of $user->login asked for",
            default => "Closing of $user->login asked for",
        };
    }
}
