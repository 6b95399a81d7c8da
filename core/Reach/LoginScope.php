<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

/** The reach of one login, and what makes it stand out. */
final readonly class LoginScope
{
    private const DAY = 86400;

    /** @param  list<Flag>  $flags  the gravest first */
    private function __construct(
        public AccountScope $account,
        public ScopedLogin $login,
        public Reach $reach,
        public array $flags,
        public int $idleDays,
    ) {
    }

    /**
     * @param  int  $now  seconds since 1970
     * @param  int  $idleAfter  days without use from which a login counts as idle
     */
    public static function fromLogin(AccountScope $account, ScopedLogin $login, int $now, int $idleAfter): self
    {
        $reach = Reach::fromDirectory($login->directory, $account->sites);
        // A clock that was set back makes no login used in the future.
        $idle = max(0, intdiv($now - $login->used, self::DAY));
        $holds = [
            [Flag::WholeAccount, $reach->isWholeAccount()],
            [Flag::TwoClients, count($reach->clients()) > 1],
            [Flag::SeveralSites, $reach->isTooWide()],
            [Flag::ScriptsInUploads, self::reachesScripts($account, $login)],
            [Flag::Overdue, $login->closes !== null && $login->closes < $now],
            [Flag::NotProven, ! $login->proven],
            [Flag::NoEnd, ! $login->ends],
            [Flag::Idle, $idle >= $idleAfter],
        ];
        $flags = [];
        foreach ($holds as [$flag, $stands]) {
            if ($stands) {
                $flags[] = $flag;
            }
        }

        return new self($account, $login, $reach, $flags, $idle);
    }

    private static function reachesScripts(AccountScope $account, ScopedLogin $login): bool
    {
        foreach ($account->scriptFolders as $folder) {
            if ($login->directory->contains($folder) || $folder->contains($login->directory)) {
                return true;
            }
        }

        return false;
    }
}
