<?php

declare(strict_types=1);

namespace Cellarium\Standin\World;

/** One customer of the simulated hosting company. */
final class HostedAccount
{
    public Faults $faults;

    private ?int $used = null;

    /**
     * @param  string  $home  absolute directory on this machine that holds the account's files
     * @param  int  $spaceLimit  bytes
     * @param  string  $token  bearer token of the control service
     * @param  list<HostedSite>  $sites
     * @param  array<string, FtpLogin>  $users  by full login, the account's own login first
     */
    public function __construct(
        public readonly string $name,
        public readonly string $host,
        public readonly string $home,
        public readonly int $spaceLimit,
        public readonly string $token,
        public readonly array $sites,
        public array $users,
    ) {
        $this->faults = new Faults;
    }

    /** Bytes in all files of the account; counted once, then kept by addUsed(). */
    public function used(): int
    {
        return $this->used ??= DiskUse::of($this->home);
    }

    public function addUsed(int $bytes): void
    {
        $this->used = max(0, $this->used() + $bytes);
    }

    public function spaceLimit(): int
    {
        return min($this->spaceLimit, $this->faults->fullAtBytes ?? PHP_INT_MAX);
    }

    /** Bytes that may still be stored by this login; never negative. */
    public function roomFor(FtpLogin $login): int
    {
        $room = $this->spaceLimit() - $this->used();
        if ($login->spaceLimit !== null) {
            $room = min($room, $login->spaceLimit - DiskUse::of($this->home.rtrim($login->directory, '/')));
        }

        return max(0, $room);
    }

    public function domain(): string
    {
        return $this->sites === [] ? $this->host : $this->sites[0]->domain;
    }
}
