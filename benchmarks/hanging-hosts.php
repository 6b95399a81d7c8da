<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/hanging-hosts.php [HOSTS] [ERRANDS] [TIMES], while ./start is running.
 *
 * Ten hosts that take connections and never say a word, and sixty looks at files of theirs at once, each as a browser
 * asks for it: how long another account's plan takes meanwhile, how long pages take that show nothing of a host, and
 * those that do. The baseline, in the same run, is the same plan and the same pages before, with nothing going on. The
 * accounts of the hosts are removed again.
 */
chdir(dirname(__DIR__));
require 'vendor/autoload.php';
$app = require 'bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
restore_exception_handler(); // Whoever starts it is told by the status.

use App\Models\Account;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\Person;

$hosts = max(1, (int) ($argv[1] ?? 10));
$errands = max(1, (int) ($argv[2] ?? 60));
$times = max(1, (int) ($argv[3] ?? 5));
$base = 'http://127.0.0.1:'.getenv('CELLARIUM_PORT');
$deployed = Deployment::where('state', DeploymentState::Proven)
    ->whereNotNull('package_id')
    ->oldest('id') // Those of a fleet that was laid beside the demo world have no host that answers.
    ->firstOrFail();

$cookies = (string) tempnam(sys_get_temp_dir(), 'cookies');
$handle = static function (string $path, ?array $form = null) use ($base, $cookies): CurlHandle {
    $curl = curl_init("$base$path");
    curl_setopt_array($curl, [
        CURLOPT_RETURNTRANSFER => true,
        CURLOPT_COOKIEFILE => $cookies,
        CURLOPT_COOKIEJAR => $cookies,
    ] + ($form === null ? [] : [CURLOPT_POSTFIELDS => http_build_query($form)]));

    return $curl;
};
$ask = static function (string $path, ?array $form = null) use ($handle): array {
    $from = hrtime(true);
    $curl = $handle($path, $form);
    $text = (string) curl_exec($curl);
    $facts = [(hrtime(true) - $from) / 1e6, $text, (string) curl_getinfo($curl, CURLINFO_REDIRECT_URL)];
    curl_close($curl);

    return $facts;
};
$token = static function (string $page) use ($ask): string {
    preg_match('/name="_token" value="([^"]+)"/', $ask($page)[1], $match) === 1
        || throw new RuntimeException("Nothing answers at $page: run ./start first.");

    return $match[1];
};
$ask('/sign-in', [
    '_token' => $token('/sign-in'),
    'email' => Person::firstOrFail()->email,
    'password' => 'slow-tide-lantern',
]);

/** Milliseconds from ordering a plan to its being there. */
$plan = static function () use ($ask, $token, $deployed): float {
    $from = hrtime(true);
    $there = $ask('/deployments', [
        '_token' => $token('/deployments/new'),
        'site' => $deployed->site_id,
        'package' => $deployed->package_id,
    ])[2];
    $id = (int) basename($there);
    $id > 0 || throw new RuntimeException('No plan was begun.');
    do {
        usleep(20_000);
        $state = Deployment::whereKey($id)->value('state');
    } while ($state === DeploymentState::Drafting && hrtime(true) - $from < 300e9);
    $took = (hrtime(true) - $from) / 1e6;
    $state === DeploymentState::Planned || throw new RuntimeException("The plan came to nothing: $state->value");
    Deployment::whereKey($id)->update(['state' => DeploymentState::Cancelled]);

    return $took;
};
$quiet = ['/', '/accounts', '/packages', '/deployments', '/backups', '/record', "/sites/$deployed->site_id"];
/** @return array{float, float} the slowest of those that show nothing of a host, and of one that does */
$pages = static function () use ($ask, $quiet, $deployed): array {
    $files = $ask("/sites/$deployed->site_id/files?look=1")[0];

    return [max(array_map(static fn (string $page): float => $ask($page)[0], $quiet)), $files];
};
$median = static function (array $all): float {
    sort($all);

    return $all[intdiv(count($all), 2)];
};

$measure = static function (string $when) use ($plan, $pages, $times, $median): float {
    $plans = $slowest = $files = [];
    for ($time = 0; $time < $times; $time++) {
        $plans[] = $plan();
        [$slowest[], $files[]] = $pages();
    }
    printf('%-18s plan %5.0f ms at the median, ', $when, $median($plans));
    printf('%5.0f at the most; ', max($plans));
    printf("pages without a host %4.0f at the most, with one %4.0f\n", max($slowest), max($files));

    return $median($plans);
};
$plan();
$pages();
$alone = $measure('nothing going on');

$listening = $accounts = [];
try {
    for ($number = 0; $number < $hosts; $number++) {
        // The system takes the connections; nobody ever says a word.
        $context = stream_context_create(['socket' => ['backlog' => 500]]);
        $socket = stream_socket_server('tcp://127.0.0.1:0', context: $context);
        $listening[] = $socket;
        $accounts[] = Account::create([
            'client_id' => $deployed->site->account->client_id,
            'label' => "hangs $number",
            'company' => 'Northquay',
            'host' => "hangs-$number.example",
            'address' => '127.0.0.1',
            'port' => (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1),
            'protocol' => 'ftp',
            'login' => "hangs$number",
            'secret' => 'never-asked-for',
        ]);
    }
    $all = curl_multi_init();
    for ($number = 0; $number < $errands; $number++) {
        $account = $accounts[$number % $hosts];
        curl_multi_add_handle($all, $handle("/accounts/$account->id/files?look=1&n=$number"));
    }
    $from = hrtime(true);
    do {
        curl_multi_exec($all, $running);
        curl_multi_select($all, 0.05);
        $going = Errand::whereIn('account_id', array_column($accounts, 'id'))->count();
    } while ($going < $errands && hrtime(true) - $from < 60e9);
    printf("%d errands at %d hosts that hang\n", $going, $hosts);
    $theirs = Errand::whereIn('account_id', array_column($accounts, 'id'));
    printf("%d of them are with workers\n", $theirs->where('state', ErrandState::Running)->count());
    printf("the plan takes %.2f of its time alone at the median\n", $measure('beside them') / $alone);
    while ($running > 0) {
        curl_multi_exec($all, $running);
        curl_multi_select($all, 0.05);
    }
} finally {
    array_map(fclose(...), $listening);
    $ids = array_map(static fn (Account $account): int => $account->id, $accounts);
    Errand::whereIn('account_id', $ids)->where('state', ErrandState::Waiting)->update(['state' => 'cancelled']);
    Account::whereIn('id', $ids)->forceDelete();
    unlink($cookies);
}
