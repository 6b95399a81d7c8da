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
     * @param  bool  $readOnly  may fetch and list but change nothing
     * @param  float|null  $lastUsed  seconds since 1970 of the last sign-in that was let in
     * @param  float|null  $closesAt  seconds since 1970 from which it is refused, where closing comes late
     */
    public function __construct(
        public readonly string $login,
        public string $passwordHash,
        public string $directory = '/',
        public ?int $spaceLimit = null,
        public bool $open = true,
        public bool $readOnly = false,
        public ?float $lastUsed = null,
        public ?float $closesAt = null,
    ) {
    }

    /**
     * Whether a sign-in is let in: what is shown as closed may still be let in where the host is slow or never does it.
     */
    public function letsIn(bool $neverCloses): bool
    {
        return $this->open || $neverCloses || ($this->closesAt !== null && microtime(true) < $this->closesAt);
    }

    /**
     * @return array{
     *     login: string,
     *     password_hash: string,
     *     directory: string,
     *     space_limit: int|null,
     *     open: bool,
     *     read_only: bool,
     *     last_used: float|null,
     *     closes_at: float|null,
     * }
     */
    public function toArray(): array
    {
        return [
            'login' => $this->login,
            'password_hash' => $this->passwordHash,
            'directory' => $this->directory,
            'space_limit' => $this->spaceLimit,
            'open' => $this->open,
            'read_only' => $this->readOnly,
            'last_used' => $this->lastUsed,
            'closes_at' => $this->closesAt,
        ];
    }

    /**
     * @return array{
     *     login: string,
     *     directory: string,
     *     space_limit: int|null,
     *     access: string,
     *     open: bool,
     *     last_used: string|null,
     * }  what the control service shows
     */
    public function shown(): array
    {
        return [
            'login' => $this->login,
            'directory' => $this->directory,
            'space_limit' => $this->spaceLimit,
            'access' => $this->readOnly ? 'read-only' : 'read-write',
            'open' => $this->open,
            'last_used' => $this->lastUsed === null ? null : self::time($this->lastUsed),
        ];
    }

    /** RFC 3339, in UTC, to the microsecond. */
    private static function time(float $seconds): string
    {
        $time = \DateTimeImmutable::createFromFormat('U.u', sprintf('%.6F', $seconds));

        return $time === false ? throw new \LogicException('a time that is none') : $time->format('Y-m-d\TH:i:s.u\Z');
    }
}
