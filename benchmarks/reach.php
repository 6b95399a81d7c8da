<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/reach.php [TIMES]
 *
 * The core's computation of who reaches what, for 5,000 FTP users on 1,000 accounts with 3,000 sites: from texts to
 * values to flags, as a page needs it. The baseline, in the same run, is only reading the same paths into values,
 * which no way of computing it could leave out.
 */
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\AccountScope;
use Cellarium\Core\Reach\FleetScope;
use Cellarium\Core\Reach\ScopedLogin;
use Cellarium\Core\Reach\SitePlaces;

require __DIR__.'/../vendor/autoload.php';

$times = (int) ($argv[1] ?? 15);
$sites = $logins = [];
for ($account = 0; $account < 1000; $account++) {
    for ($site = 0; $site < 3; $site++) {
        $sites[$account][] = [
            "www$site.fleet$account.example",
            "/www/www$site.fleet$account.example",
            "/apps/shop$site",
        ];
    }
    for ($login = 0; $login < 5; $login++) {
        $logins[$account][] = [
            "job$login@fleet$account.example",
            ['/', '/www', "/www/www0.fleet$account.example", "/www/www1.fleet$account.example/uploads/2026", '/logs'][
                $login
            ],
        ];
    }
}
$read = static function () use ($sites, $logins): int {
    $paths = 0;
    foreach ($sites as $account => $rows) {
        foreach ($rows as [, $root, $mounted]) {
            $paths += RemotePath::fromString($root)->depth() + RemotePath::fromString($mounted)->depth();
        }
        foreach ($logins[$account] as [, $directory]) {
            $paths += RemotePath::fromString($directory)->depth();
        }
    }

    return $paths;
};
$compute = static function () use ($sites, $logins): FleetScope {
    return FleetScope::fromAccounts(
        (static function () use ($sites, $logins): Generator {
            foreach ($sites as $account => $rows) {
                yield new AccountScope(
                    $account,
                    array_map(
                        static fn (array $row): SitePlaces => new SitePlaces(
                            $row[0],
                            (string) ($account % 7),
                            RemotePath::fromString($row[1]),
                            [RemotePath::fromString($row[2])],
                        ),
                        $rows,
                    ),
                    [RemotePath::fromString($rows[1][1].'/uploads')],
                    array_map(
                        static fn (array $row): ScopedLogin => new ScopedLogin(
                            $row[0],
                            $row[0],
                            RemotePath::fromString($row[1]),
                            true,
                            null,
                            true,
                            1_790_000_000,
                        ),
                        $logins[$account],
                    ),
                );
            }
        })(),
        1_800_000_000,
    );
};
$took = ['read' => [], 'compute' => []];
for ($time = -2; $time < $times; $time++) {
    foreach (['read' => $read, 'compute' => $compute] as $name => $work) {
        $from = hrtime(true);
        $work();
        $time < 0 || $took[$name][] = (hrtime(true) - $from) / 1e6;
    }
}
$median = static function (array $all): float {
    sort($all);

    return $all[intdiv(count($all), 2)];
};
$scope = $compute();
printf(
    "%d FTP users on %d accounts, %s\n",
    count($scope->logins),
    count($sites),
    implode(
        ', ',
        array_map(
            static fn (string $flag, int $count): string => "$flag $count",
            array_keys($scope->counts()),
            $scope->counts(),
        ),
    ),
);
printf(
    "reading the paths (baseline) %7.1f ms at the median, %7.1f ms at the most\n",
    $median($took['read']),
    max($took['read']),
);
printf(
    'who reaches what             %7.1f ms at the median, %7.1f ms at the most, %.1f of the baseline, %.0f MB at the '
        ."peak\n",
    $median($took['compute']),
    max($took['compute']),
    $median($took['compute']) / $median($took['read']),
    memory_get_peak_usage() / 1e6,
);
