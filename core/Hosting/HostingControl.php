<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Path\RemotePath;

/**
 * The control service of a hosting company: FTP users and space.
 *
 * That something was asked and answered proves nothing yet; the sign-in afterwards does.
 */
interface HostingControl
{
    /** @throws ControlFailure */
    public function space(): Space;

    /** Null where the host does not tell. @throws ControlFailure */
    public function loginRules(): ?LoginRules;

    /**
     * Gives the account's own login another password.
     *
     * @throws ControlFailure after which either may be the right one
     */
    public function renewPassword(Secret $password): void;

    /** @return list<HostedUser> all FTP users of the account. @throws ControlFailure */
    public function ftpUsers(): array;

    /** Null when the host knows no such user. @throws ControlFailure */
    public function ftpUser(string $login): ?HostedUser;

    /**
     * @param  string  $name  the short name; hosts put something around it
     * @param  int|null  $spaceLimit  bytes
     * @return HostedUser with the full login
     *
     * @throws ControlFailure after which the user may exist, see ControlFault::isCertain()
     */
    public function createFtpUser(
        string $name,
        Secret $password,
        RemotePath $directory,
        ?int $spaceLimit,
        bool $readOnly = false,
    ): HostedUser;

    /** @throws ControlFailure after which the change may have been made, see ControlFault::isCertain() */
    public function changeFtpUser(string $login, UserChange $change): HostedUser;

    /** One that is not there any more is as good. @throws ControlFailure */
    public function removeFtpUser(string $login): void;
}
