<?php

declare(strict_types=1);

namespace App\Reach;

use App\FtpUsers\FtpUserView;
use App\Models\Account;
use App\Models\Site;
use Cellarium\Core\Reach\Reach;

/** The reach of one account's logins, as lines of a table. */
final class ReachLines
{
    public const COLUMNS = [
        'account',
        'login',
        'state',
        'directory',
        'site',
        'client',
        'extent',
        'part',
        'closes',
        'proven',
        'last used',
    ];

    /** @return \Generator<int, list<string>> one line for each site a login reaches, see COLUMNS */
    public static function forAccount(Account $account): \Generator
    {
        $names = $account->sites->mapWithKeys(
            static fn (Site $site): array => [$site->domain => $site->client->name ?? $account->client->name],
        );
        foreach ($account->ftpUsers as $user) {
            $facts = [
                $user->closes_at?->format('Y-m-d H:i') ?? $user->endsWords(),
                $user->reach_proven_at?->format('Y-m-d H:i') ?? '',
                $user->used_at?->format('Y-m-d H:i') ?? '',
            ];
            $before = [$account->host, $user->login, FtpUserView::stands($user)[0], $user->directory];
            $touched = Reach::fromDirectory($user->path(), $account->places())->touched();
            foreach ($touched as $site) {
                yield [
                    ...$before,
                    $site->domain,
                    (string) $names[$site->domain],
                    $site->extent->value,
                    implode(' and ', $site->parts),
                    ...$facts,
                ];
            }
            if ($touched === []) {
                yield [...$before, '', '', 'none', '', ...$facts];
            }
        }
    }
}
