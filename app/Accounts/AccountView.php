<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Account;
use App\Models\FtpUser;
use App\Text\Amount;
use Illuminate\Support\Collection;

/** The page of an account: how it is reached, and who can sign in. */
final readonly class AccountView
{
    /** FTP users shown beside the map; all are in the list. */
    private const MOST_USERS = 6;

    /** @var Collection<int, FtpUser> */
    public Collection $open;

    /** @var Collection<int, FtpUser> */
    public Collection $ended;

    public function __construct(public Account $account)
    {
        [$this->ended, $this->open] = $account->ftpUsers->toBase()->partition->hasEnded();
    }

    /** How it is reached, and how far that can be trusted. */
    public function protocol(): string
    {
        $account = $this->account;

        return $account->protocol->label().match (true) {
            ! $account->protocol->isEncrypted() => ', readable on the way',
            $account->reached_at === null => '',
            $account->pin === null => ', certificate verified',
            default => ', key accepted',
        };
    }

    public function reached(): string
    {
        return $this->account->reached_at === null
            ? 'not reached yet'
            : 'reached '.Amount::ago($this->account->reached_at);
    }

    public function space(): string
    {
        return $this->account->space_limit === null
            ? 'space not known'
            : Amount::bytes($this->account->space_used).' of '.Amount::bytes($this->account->space_limit);
    }

    /** When it was tried last, and how quickly it answers. */
    public function tried(): string
    {
        $account = $this->account;
        $latency = $account->latency_ms === null ? '' : ", answers in $account->latency_ms ms";

        return match (true) {
            $account->isClimbing() => 'being tried',
            $account->tried_at === null => 'not tried yet',
            default => Amount::ago($account->tried_at).$latency,
        };
    }

    /** Whether every check of the last attempt held, so that one line says it all. */
    public function holds(): bool
    {
        $ladder = $this->account->ladder ?? [];

        return $ladder !== []
            && ! $this->account->isClimbing()
            && ! $this->account->wasCutOff()
            && array_filter($ladder, static fn (array $rung): bool => ! $rung['ok']) === [];
    }

    /** How many checks the last attempt made. */
    public function checks(): int
    {
        return count($this->account->ladder ?? []);
    }

    /** @return Collection<int, FtpUser> those in trouble first, then the newest */
    public function usersShown(): Collection
    {
        return $this->open
            ->sortByDesc('id')
            ->sortBy(static fn (FtpUser $user): int => $user->isProven() && ! $user->isOverdue() ? 1 : 0)
            ->take(self::MOST_USERS);
    }

    /** When a user closes, what it is for, and for how long nobody used it. */
    public static function facts(FtpUser $user): string
    {
        return implode(' · ', array_filter([
            ($user->isOverdue() ? 'should have closed ' : 'closes ').$user->endsWords(),
            $user->purpose,
            $user->idleDays() >= (int) config('cellarium.idle_days') ? "idle {$user->idleDays()} days" : '',
        ], static fn (string $part): bool => $part !== ''));
    }
}
