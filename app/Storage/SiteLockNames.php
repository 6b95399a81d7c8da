<?php

declare(strict_types=1);

namespace App\Storage;

use App\Models\Account;
use App\Models\FtpUser;
use App\Models\SharedDirectory;
use App\Models\Site;
use Cellarium\Core\Path\RemotePath;

/**
 * The names under which work on a site is locked, so that what reaches the same directory waits for one another.
 *
 * Which directory of a host a login really lands in cannot be asked. What is known: one login of a host is one place,
 * however often it is saved; an FTP user of another account lands inside that account; a domain is served from one
 * directory, whichever accounts lead there; and a directory in which a token was seen that was put there through
 * another login is that one's too. What none of this catches is caught by the files that a run lays down.
 */
final class SiteLockNames
{
    /** @return list<string> */
    public static function forSite(Site $site): array
    {
        return [
            self::forLogin($site->account),
            ...self::ofDomains([$site->domain, ...self::meeting($site->account, $site->applicationRoot())]),
        ];
    }

    /** @return list<string> of all that an account reaches */
    public static function ofAccount(Account $account): array
    {
        return [
            self::forLogin($account),
            ...self::ofDomains([
                ...$account->sites->pluck('domain')->all(),
                ...self::meeting($account, RemotePath::root()),
            ]),
        ];
    }

    /** @return list<string> domains of the sites of other accounts that have something in common with a place */
    private static function meeting(Account $account, RemotePath $place): array
    {
        $domains = [];
        foreach (SharedDirectory::where('account_id', $account->id)->get() as $shared) {
            array_push($domains, ...$shared->sitesAt($place)->pluck('domain')->all());
        }

        return $domains;
    }

    /**
     * @param  list<string>  $domains
     * @return list<string>
     */
    private static function ofDomains(array $domains): array
    {
        return array_values(array_unique(
            array_map(static fn (string $domain): string => 'site|'.strtolower($domain), $domains),
        ));
    }

    public static function forLogin(Account $account): string
    {
        $owner = FtpUser::with('account:id,login')
            ->where('login', $account->login)
            ->whereHas('account', static fn ($query) => $query->where('host', $account->host))
            ->first()?->account->login;

        return 'login|'.strtolower($account->host).'|'.($owner ?? $account->login);
    }
}
