<?php

declare(strict_types=1);

namespace App\Reach;

use App\Models\Account;
use App\Models\Closing;
use App\Models\FtpUserState;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\AccountScope;
use Cellarium\Core\Reach\DirectoryTree;
use Cellarium\Core\Reach\FleetScope;
use Cellarium\Core\Reach\ScopedLogin;
use Cellarium\Core\Reach\SitePlaces;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** From what is stored to the scopes of all FTP users that have not ended; plain rows, there may be thousands. */
final class FleetScopes
{
    /** @param  list<int>|null  $accounts  only these */
    public static function scopes(?array $accounts = null, ?int $idleAfter = null): FleetScope
    {
        // Ten thousand small objects, none of them in a circle: looking for circles takes a quarter of the time.
        $collects = gc_enabled();
        gc_disable();
        try {
            return self::load($accounts, $idleAfter);
        } finally {
            $collects && gc_enable();
        }
    }

    /** @param  list<int>|null  $accounts */
    private static function load(?array $accounts, ?int $idleAfter): FleetScope
    {
        $only = static fn ($query) => $query->when(
            $accounts !== null,
            static fn ($query) => $query->whereIn('account_id', $accounts),
        );
        $users = $only(DB::table('ftp_users'))
            ->whereNotIn('state', FtpUserState::ENDED)
            ->orderBy('id')
            ->get([
                'id',
                'account_id',
                'login',
                'directory',
                'state',
                'ends',
                'closes_at',
                'reach_proven_at',
                'proof_failed_at',
                'used_at',
                'created_at',
            ])
            ->groupBy('account_id');
        $sites = $only(DB::table('sites'))
            ->whereNull('removed_at')
            ->whereIn('account_id', $users->keys())
            ->orderBy('domain')
            ->get(['account_id', 'client_id', 'domain', 'document_root', 'mounts'])
            ->groupBy('account_id');
        $elsewhere = self::elsewhere($users->keys());
        $rows = DB::table('accounts')
            ->whereNull('removed_at')
            ->whereIn('id', $users->keys())
            ->orderBy('id')
            ->get(['id', 'client_id', 'tree']);

        $zone = ' '.config('app.timezone');

        return FleetScope::fromAccounts(
            (static function () use ($rows, $sites, $users, $elsewhere, $zone): \Generator {
                foreach ($rows as $account) {
                    yield self::account(
                        $zone,
                        $account,
                        $sites->get($account->id, new Collection()),
                        $users->get($account->id, new Collection()),
                        $elsewhere[$account->id] ?? [],
                    );
                }
            })(),
            now()->getTimestamp(),
            $idleAfter ?? (int) config('cellarium.idle_days'),
        );
    }

    /**
     * What accounts reach of the sites of others; few do, and models do for them.
     *
     * @param  Collection<int, int>  $accounts
     * @return array<int, list<SitePlaces>> by the number of the account
     */
    private static function elsewhere(Collection $accounts): array
    {
        return Account::with('sites', 'shared.other.sites')
            ->whereIn('id', DB::table('shared_directories')->whereIn('account_id', $accounts)->select('account_id'))
            ->get()
            ->mapWithKeys(static fn (Account $account): array => [$account->id => $account->placesElsewhere()])
            ->all();
    }

    /**
     * @param  Collection<int, \stdClass>  $sites
     * @param  Collection<int, \stdClass>  $users
     * @param  list<SitePlaces>  $elsewhere
     */
    private static function account(
        string $zone,
        \stdClass $account,
        Collection $sites,
        Collection $users,
        array $elsewhere,
    ): AccountScope {
        $time = static fn (?string $at): ?int => $at === null ? null : (int) strtotime($at.$zone);

        return new AccountScope(
            $account->id,
            [...self::places($account, $sites), ...$elsewhere],
            $account->tree === null || ! str_contains($account->tree, '"scripts"')
                ? []
                : DirectoryTree::fromFields(JsonFields::fromJson($account->tree))->scriptFolders(),
            $users
                ->map(
                    static fn (\stdClass $user): ScopedLogin => new ScopedLogin(
                        $user->id,
                        $user->login,
                        RemotePath::fromString($user->directory),
                        $user->reach_proven_at !== null && $user->proof_failed_at === null,
                        $time($user->closes_at),
                        $user->ends !== Closing::Never->value,
                        (int) ($time($user->used_at) ?? $time($user->created_at)),
                    ),
                )
                ->values()
                ->all(),
        );
    }

    /**
     * @param  Collection<int, \stdClass>  $sites  of the account
     * @return list<SitePlaces>
     */
    private static function places(\stdClass $account, Collection $sites): array
    {
        return array_values($sites->map(static fn (\stdClass $site): SitePlaces => new SitePlaces(
            $site->domain,
            (string) ($site->client_id ?? $account->client_id),
            RemotePath::fromString($site->document_root),
            $site->mounts === '[]'
                ? []
                : array_map(
                    RemotePath::fromString(...),
                    array_column((array) json_decode($site->mounts, true), 'directory'),
                ),
        ))->all());
    }
}
