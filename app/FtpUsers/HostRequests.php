<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\HostingControl;
use Cellarium\Core\Hosting\UserChange;

/** Requests about an FTP user to a host that has a control service, and the host's word on what became of them. */
final readonly class HostRequests
{
    /** @throws ControlFailure */
    public function ask(FtpUser $user, HostingControl $control): void
    {
        $pending = $user->pending ?? throw new \LogicException("Nothing is pending of $user->login.");
        if ($user->action() === PendingAction::Create) {
            $made = $control->createFtpUser(
                $pending->name(),
                new Secret((string) $user->next_secret),
                $user->path(),
                $user->space_limit,
                $user->read_only,
            );
            $made->login === $user->login || $user->update(['login' => $made->login]);

            return;
        }
        if ($user->action() === PendingAction::Remove) {
            $this->knowPassword($user, $control);
            $control->removeFtpUser($user->login);

            return;
        }
        if ($user->action() === PendingAction::Close) {
            $this->knowPassword($user, $control);
        }
        $password = $pending->action->setsPassword() ? new Secret((string) $user->next_secret) : null;
        $control->changeFtpUser(
            $user->login,
            new UserChange(
                $password,
                $pending->directory(),
                $pending->setsSpace(),
                $pending->spaceLimit(),
                match ($user->action()) {
                    PendingAction::Close => false,
                    PendingAction::Reopen => true,
                    default => null,
                },
            ),
        );
    }

    /**
     * A refused sign-in proves something only with the right password; where it was forgotten, the host is given
     * another.
     */
    private function knowPassword(FtpUser $user, HostingControl $control): void
    {
        if ($user->secret !== null || $user->state === FtpUserState::Closed) {
            return;
        }
        // One that was thought of before may never have reached the host; setting it twice does no harm.
        $password = $user->next_secret === null ? (new PasswordMaker)->make() : new Secret($user->next_secret);
        $user->update(['next_secret' => $password->reveal()]);
        $control->changeFtpUser($user->login, new UserChange($password));
        $user->update(['secret' => $password->reveal(), 'next_secret' => null]);
    }

    /** Whether the host shows that what is wanted was done; null where it cannot be asked, or cannot show it. */
    public function happened(FtpUser $user, HostingControl $control): ?bool
    {
        try {
            $told = $control->ftpUser($user->login);
        } catch (ControlFailure) {
            return null;
        }
        $pending = $user->pending;

        return match ($user->action()) {
            PendingAction::Create => $told !== null,
            PendingAction::Remove => $told === null,
            PendingAction::Close => $told === null || ! $told->open,
            PendingAction::Reopen => $told !== null && $told->open,
            PendingAction::Change => $told !== null
                && in_array($pending?->directory()?->toString(), [null, $told->directory], true)
                && ($pending?->setsSpace() !== true || $told->spaceLimit === $pending->spaceLimit()),
            default => $told === null ? false : null, // A password shows in signing in only.
        };
    }
}
