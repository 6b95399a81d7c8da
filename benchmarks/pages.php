<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/pages.php [TIMES], while ./start is running (its MariaDB is used, in a database of its own).
 *
 * Lays a thousand accounts with three thousand sites and five thousand FTP users, starts a web server beside the one that runs, and measures how
 * long it takes to answer, from request to last byte. The baseline, in the same run, is the sign-in page: the same
 * application, session and layout, with nothing to show. Pages are asked in turns, so that both see the same machine.
 */
$times = (int) ($argv[1] ?? 25);
[$environment, $run] = require __DIR__.'/database.php';
$from = microtime(true);
$run(PHP_BINARY, 'artisan', 'db:seed', '--class=FleetSeeder', '--force', '--quiet');
printf("1,000 accounts, 3,000 sites and 5,000 FTP users laid in %.1f s\n", microtime(true) - $from);
$run(PHP_BINARY, '-r', 'require "vendor/autoload.php"; $app = require "bootstrap/app.php"; $app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap(); App\Models\Person::create(["name" => "Bench Mark", "email" => "bench@marramtide.example", "password" => "only-for-the-bench", "role" => "maintainer"]);');

$listener = stream_socket_server('tcp://127.0.0.1:0');
$port = substr(strrchr((string) stream_socket_get_name($listener, false), ':'), 1);
fclose($listener);
$server = proc_open([PHP_BINARY, '-d', 'opcache.enable_cli=1', '-S', "127.0.0.1:$port", '-t', 'public', 'public/router.php'], [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']], $pipes, null, $environment);
register_shutdown_function(static function () use ($server): void {
    foreach (explode("\n", (string) shell_exec('ps -o pid= --ppid '.proc_get_status($server)['pid'])) as $child) {
        $child === '' || posix_kill((int) $child, SIGTERM);
    }
    proc_terminate($server);
});

$guest = curl_init();
$person = curl_init();
$ask = static function (string $path, ?array $form = null, bool $signedIn = true) use ($guest, $person, $port): array {
    $curl = $signedIn ? $person : $guest;
    curl_setopt_array($curl, [CURLOPT_URL => "http://127.0.0.1:$port$path", CURLOPT_RETURNTRANSFER => true, CURLOPT_COOKIEFILE => ''] + ($form === null ? [CURLOPT_HTTPGET => true] : [CURLOPT_POSTFIELDS => http_build_query($form)]));
    $from = hrtime(true);
    $text = (string) curl_exec($curl);

    return [(hrtime(true) - $from) / 1e6, $text, curl_getinfo($curl, CURLINFO_RESPONSE_CODE)];
};
for ($until = microtime(true) + 20; $ask('/sign-in')[2] !== 200;) {
    microtime(true) < $until ? usleep(50_000) : exit("The web server did not come up.\n");
}
preg_match('/name="_token" value="([^"]+)"/', $ask('/sign-in')[1], $token);
$ask('/sign-in', ['_token' => $token[1], 'email' => 'bench@marramtide.example', 'password' => 'only-for-the-bench']);

$pages = ['/sign-in' => 'empty page (baseline)', '/' => 'Today', '/?as=table' => 'Today as a table', '/shelves?from=48' => 'more shelves', '/accounts' => 'Accounts', '/accounts?q=heron' => 'Accounts, searched', '/accounts?sort=users&down=1' => 'Accounts, sorted', '/reach' => 'who reaches what', '/reach?only=idle&page=2' => 'who is idle', '/ftp-users' => 'open FTP users', '/find?q=heron' => 'finder', '/find?q=' => 'finder, recent'];
$took = [];
for ($time = -3; $time < $times; $time++) {
    foreach (array_keys($pages) as $page) {
        [$milliseconds, $text, $status] = $ask($page, signedIn: $page !== '/sign-in');
        $status === 200 || exit("$page answered $status\n");
        $time < 0 || $took[$page][] = $milliseconds; // The first rounds warm up.
    }
}
$median = static function (array $all): float {
    sort($all);

    return $all[intdiv(count($all), 2)];
};
$baseline = $median($took['/sign-in']);
foreach ($pages as $page => $name) {
    printf("%-24s %7.1f ms at the median, %7.1f ms at the most, %5.2f of the empty page\n", $name, $median($took[$page]), max($took[$page]), $median($took[$page]) / $baseline);
}
