<?php

declare(strict_types=1);

namespace Cellarium\Core\Account;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Path\RemotePath;

/** What can be asked of the hosting company itself, beside files: FTP users and space. */
interface HostingControl
{
    /** @throws ControlFailure */
    public function space(): Space;

    /** Gives the account's own login another password. @throws ControlFailure after which either may be the right one */
    public function renewPassword(Secret $password): void;

    /**
     * @param  string  $name  the short name; hosts put something behind it
     * @param  int|null  $spaceLimit  bytes
     * @return string the full login
     *
     * @throws ControlFailure
     */
    public function createFtpUser(string $name, Secret $password, RemotePath $directory, ?int $spaceLimit): string;

    /** The login exists afterwards but signs in no more. @throws ControlFailure */
    public function closeFtpUser(string $login): void;

    /** @throws ControlFailure */
    public function removeFtpUser(string $login): void;
}
