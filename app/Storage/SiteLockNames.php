<?php

declare(strict_types=1);

namespace App\Storage;

use App\Models\Account;
use App\Models\FtpUser;
use App\Models\Site;

/**
 * The names under which work on a site is locked, so that what reaches the same directory waits for one another.
 *
 * Which directory of a host a login really lands in cannot be asked. What is known: one login of a host is one place,
 * however often it is saved; an FTP user of another account lands inside that account; and a domain is served from one
 * directory, whichever accounts lead there. What none of this catches is caught by the files that a run lays down.
 */
final class SiteLockNames
{
    /** @return list<string> */
    public static function of(Site $site): array
    {
        return [self::ofLogin($site->account), 'site|'.strtolower($site->domain)];
    }

    /** @return list<string> of all that an account reaches */
    public static function ofAccount(Account $account): array
    {
        return [
            self::ofLogin($account),
            ...$account->sites->map(static fn (Site $site): string => 'site|'.strtolower($site->domain))->all(),
        ];
    }

    private static function ofLogin(Account $account): string
    {
        $owner = FtpUser::with('account:id,login')
            ->where('login', $account->login)
            ->whereHas('account', static fn ($query) => $query->where('host', $account->host))
            ->first()?->account->login;

        return 'login|'.strtolower($account->host).'|'.($owner ?? $account->login);
    }
}
