<?php

declare(strict_types=1);

namespace App\Storage;

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
        $host = strtolower($site->account->host);
        $owner = FtpUser::with('account:id,login')
            ->where('login', $site->account->login)
            ->whereHas('account', static fn ($query) => $query->where('host', $site->account->host))
            ->first()?->account->login;

        return ["login|$host|".($owner ?? $site->account->login), 'site|'.strtolower($site->domain)];
    }
}
