<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/pages.php [TIMES], while ./start is running.
 *
 * Measures the application as it is used: its own web server, with its workers and its schedule beside it. A thousand
 * accounts with three thousand sites, some of them with hundreds of backups, are laid beside the demo world where they
 * are not there yet (./start --fresh takes them away again). Every page is asked for, as the list of routes has it; the
 * baseline, in the same run, is the sign-in page: the same application, session and layout, with nothing to show.
 * Somebody of a client, with a handful of sites among them all, asks for their pages too, marked "#clients". Pages are
 * asked in turns, so that all see the same machine. What takes longer than 250 ms at the median is marked.
 */
const MOST_MILLISECONDS = 250;

$times = max(1, (int) ($argv[1] ?? 15));
chdir(dirname(__DIR__));
require 'vendor/autoload.php';
$app = require 'bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
restore_exception_handler(); // Whoever starts it is told by the status.

use App\Models\Account;
use App\Models\Backup;
use App\Models\ClientRequest;
use App\Models\Deployment;
use App\Models\FtpUser;
use App\Models\Package;
use App\Models\Person;
use App\Models\Site;
use Cellarium\Core\People\Role;
use Illuminate\Support\Facades\Route;

// Where the tests only start it, the demo world is enough.
if (getenv('BENCHMARK') !== 'tiny' && Account::count() < 1000) {
    $from = microtime(true);
    (new Database\Seeders\FleetSeeder)->run();
    printf('laid in %.1f s: ', microtime(true) - $from);
}
printf(
    "%d accounts, %d sites, %d FTP users, %d backups, %d packages\n",
    Account::count(),
    Site::count(),
    FtpUser::count(),
    Backup::count(),
    Package::count(),
);

$busiest = (int) Backup::query()->groupBy('site_id')->orderByRaw('COUNT(*) DESC')->value('site_id');
$deployed = Deployment::where('state', 'proven')
    ->whereNotNull('backup_id')
    ->whereNotNull('package_id')
    ->oldest('id')
    ->firstOrFail();
$user = FtpUser::whereNotNull('reach_proven_at')->oldest('id')->firstOrFail();
$ids = [
    'account' => $deployed->site->account_id,
    'site' => $busiest,
    'user' => $user->id,
    'client' => $deployed->site->account->client_id,
    'package' => $deployed->package_id,
    'other' => $deployed->package_id,
    'type' => 'built-site',
    'upload' => 0,
    'token' => 0,
    'deployment' => $deployed->id,
    'backup' => $deployed->backup_id,
    'person' => Person::firstOrFail()->id,
    'asked' => ClientRequest::firstOrFail()->id,
    'kind' => 'clients',
    'id' => $deployed->site->account->client_id,
    'path' => '',
    'byhand' => 0,
];
// What a page is asked for beside its bare address.
$asked = [
    '/' => ['', 'as=table', 'kind=no+backup', 'kind=open+user'],
    'shelves' => ['from=48', 'as=table&from=48'],
    'accounts' => ['', 'q=heron', 'sort=users&down=1', 'sort=site', 'only=unreached'],
    'accounts/{account}/tree' => ['at=%2F'],
    'accounts/{account}/foresight' => ['directory=%2Fwww'],
    'find' => ['q=heron', 'q='],
    'reach' => ['', 'only=idle&page=2', 'q=heron'],
    'ftp-users' => ['', 'only=idle&q=bakery'],
    'deployments/new' => ['', "site=$busiest"],
    'backups' => ['', "site=$busiest"],
    'record' => ['', 'q=heron', 'about=backups'],
    'deployments' => ['', 'only=but', 'q=heron'],
    'packages/{package}/landing' => ["site=$deployed->site_id"],
];
// Written for other programs, or of something that has to be going on.
$left = [
    'sign-in',
    'sign-in/code',
    'ftp-users/{user}/sheet',
    'backups/{backup}/zip',
    'signed-in',
    'hand-over',
    'errands/{errand}',
    'uploads/{upload}/finish',
    'package-types/{type}.yaml',
    'accounts/import/{name}',
    'bulk/{change}',
    'file-changes/{byhand}',
    'file-changes/{byhand}/page',
    'file-searches/{search}',
    'rights-checks/{check}',
    'sites/{site}/look-file/{path}',
    'accounts/{account}/look-file/{path}',
    'sites/{site}/compare-file/{path}',
    'accounts/{account}/compare-file/{path}',
    'sites/{site}/edit-file/{path}',
    'accounts/{account}/edit-file/{path}',
    'bulk/{change}/live',
    'deployments/{deployment}/side',
    'deployments/{deployment}/file',
    'sites/{site}/moments/text',
    'downloads/{errand}',
    'sheets/{sheet}',
    'sheets/{sheet}.json',
    'sheets/{sheet}/print',
    'client-sheet/{given}.json',
    'client-sheet/{given}',
];
$pages = ['/sign-in' => 'nobody'];
foreach (Route::getRoutes()->getRoutes() as $route) {
    if (! in_array('GET', $route->methods(), true) || in_array($route->uri(), $left, true)) {
        continue;
    }
    $address = '/'
        .ltrim(
            (string) preg_replace_callback(
                '/\{(\w+)\??\}/',
                static fn (array $match): string => (string) ($ids[$match[1]]
                    ?? throw new RuntimeException("{$route->uri()} is not known here")),
                $route->uri(),
            ),
            '/',
        );
    foreach ($asked[$route->uri()] ?? [''] as $query) {
        $pages[$address.($query === '' ? '' : "?$query")] = 'maintainer';
    }
}
$clients = Person::where('role', Role::ClientsPerson)->firstOrFail();
$theirs = Site::whereHas('account', static fn ($account) => $account->where('client_id', $clients->client_id))
    ->firstOrFail()
    ->id;
foreach (['/', "/sites/$theirs", '/backups', "/backups?site=$theirs", '/record', '/find?q=o', '/me'] as $address) {
    // The same address as another: told apart behind a "#", which is sent to nobody.
    $pages["$address#clients"] = 'clients';
}

$browsers = ['nobody' => curl_init(), 'maintainer' => curl_init(), 'clients' => curl_init()];
$base = 'http://127.0.0.1:'.getenv('CELLARIUM_PORT');
$ask = static function (string $path, string $who, ?array $form = null) use ($browsers, $base): array {
    $curl = $browsers[$who];
    curl_setopt_array(
        $curl,
        [CURLOPT_URL => "$base$path", CURLOPT_RETURNTRANSFER => true, CURLOPT_COOKIEFILE => '']
            + ($form === null ? [CURLOPT_HTTPGET => true] : [CURLOPT_POSTFIELDS => http_build_query($form)]),
    );
    $from = hrtime(true);
    $text = (string) curl_exec($curl);

    return [(hrtime(true) - $from) / 1e6, $text, curl_getinfo($curl, CURLINFO_RESPONSE_CODE)];
};
foreach (
    [
        'maintainer' => ['aldous@marramtide.example', 'slow-tide-lantern'],
        'clients' => ['ostler@ostreabeds.example', 'low-water-basket'],
    ] as $who => [$email, $password]
) {
    preg_match('/name="_token" value="([^"]+)"/', $ask('/sign-in', $who)[1], $token) === 1
        || throw new RuntimeException("Nothing answers at $base: run ./start first.");
    $ask('/sign-in', $who, ['_token' => $token[1], 'email' => $email, 'password' => $password]);
}

$took = [];
$size = [];
for ($time = -2; $time < $times; $time++) {
    foreach ($pages as $page => $who) {
        [$milliseconds, $text, $status] = $ask($page, $who);
        $status === 200 || throw new RuntimeException("$page answered $status");
        $size[$page] = strlen($text);
        $time < 0 || $took[$page][] = $milliseconds; // The first rounds warm up.
    }
}
$median = static function (array $all): float {
    sort($all);

    return $all[intdiv(count($all), 2)];
};
$baseline = $median($took['/sign-in']);
uksort($took, static fn (string $a, string $b): int => $median($took[$b]) <=> $median($took[$a]));
foreach ($took as $page => $all) {
    printf(
        "%s %-44s %7.1f ms at the median, %7.1f at the most, %5.1f of the empty page, %4d KB\n",
        $median($all) > MOST_MILLISECONDS ? '!' : ' ',
        $page,
        $median($all),
        max($all),
        $median($all) / $baseline,
        $size[$page] / 1000,
    );
}
