<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

/** One FTP login of an account: the account's own one, or a scoped FTP user. */
final class FtpLogin
{
    /**
     * @param  string  $login  the full login, as typed at USER
     * @param  string  $passwordHash  see World::hashPassword()
     * @param  string  $directory  where the login is jailed, from the account's home, "/" for all of it
     * @param  int|null  $spaceLimit  bytes below its directory, null for no limit of its own
     */
    public function __construct(
        public readonly string $login,
        public string $passwordHash,
        public string $directory = '/',
        public ?int $spaceLimit = null,
        public bool $open = true,
    ) {
    }

    /** @return array{login: string, password_hash: string, directory: string, space_limit: int|null, open: bool} */
    public function toArray(): array
    {
        return [
            'login' => $this->login,
            'password_hash' => $this->passwordHash,
            'directory' => $this->directory,
            'space_limit' => $this->spaceLimit,
            'open' => $this->open,
        ];
    }

    /** @return array{login: string, directory: string, space_limit: int|null, open: bool} what the control service shows */
    public function shown(): array
    {
        return [
            'login' => $this->login,
            'directory' => $this->directory,
            'space_limit' => $this->spaceLimit,
            'open' => $this->open,
        ];
    }
}
