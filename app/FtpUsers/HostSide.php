<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\FtpUser;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\HostingControl;
use Cellarium\Core\Hosting\UserChange;
use Cellarium\Core\Path\RemotePath;

/** What is wanted of an FTP user, asked of a host that has a control service; and what that host says became of it. */
final readonly class HostSide
{
    /** @throws ControlFailure */
    public function ask(FtpUser $user, HostingControl $control): void
    {
        $wanted = $user->wanted ?? [];
        if ($user->action() === 'create') {
            $made = $control->createFtpUser(
                $wanted['name'],
                new Secret((string) $user->next_secret),
                $user->path(),
                $user->space_limit,
                $user->read_only,
            );
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
        $password = in_array($user->action(), ['renew', 'reopen'], true)
            ? new Secret((string) $user->next_secret)
            : null;
        $control->changeFtpUser(
            $user->login,
            new UserChange(
                $password,
                isset($wanted['directory']) ? RemotePath::fromString($wanted['directory']) : null,
                array_key_exists('space_limit', $wanted),
                $wanted['space_limit'] ?? null,
                match ($user->action()) {
                    'close' => false,
                    'reopen' => true,
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
    public function happened(FtpUser $user, HostingControl $control): ?bool
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
            'change' => $told !== null
                && (! isset($wanted['directory']) || $told->directory === $wanted['directory'])
                && (! array_key_exists('space_limit', $wanted) || $told->spaceLimit === $wanted['space_limit']),
            default => $told === null ? false : null, // A password shows in signing in only.
        };
    }
}
