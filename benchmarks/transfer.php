<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/transfer.php [all|small|large|unpacked|order] [MILLISECONDS…]
 *
 * Moves 1,500 files of 2 kB and 3 of 60 MB, up and down, plain and over TLS, between this machine and one of Debian's
 * FTP daemons (vsftpd, as ./test unpacks it), through a proxy that makes every round trip as long as is said.
 *
 * Beside the engine, in the same run and against the same server: `league/flysystem-ftp` in a plain loop for the small
 * ones (of which it moves a part where round trips are long; the rest is reckoned), one `curl` command for the large
 * ones, and the bound: three round trips for each small file over all connections. PASV, STOR or RETR to its 150, and
 * to its 226: that is what FTP takes (RFC 959). How long a round trip is in truth, through this proxy on this machine
 * with all connections busy, is measured in the same run by connections that do nothing else, and printed. "order"
 * sends small and large ones together over connections of 10 MB/s each, the large ones first and last.
 *
 * "unpacked there" brings the same small files by one archive that the host unpacks by itself: packing, connecting,
 * sending, unpacking and listing what came of it. The host is the stand-in, which works on the daemon's own files, and
 * is asked through the same proxy.
 */

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\LayByUnpacking;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\StagedTree;
use Cellarium\Core\Deployment\SwapPaths;
use Cellarium\Core\Deployment\SwapTrees;
use Cellarium\Core\Hosting\ControlService;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Hosting\LinkedJobs;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\ListDirectory;
use Cellarium\Core\Transfer\Job\MakeDirectory;
use Cellarium\Core\Transfer\Job\SendFile;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\WorkerPool;
use Cellarium\Core\Web\CurlWebClient;
use League\Flysystem\Filesystem;
use League\Flysystem\Ftp\FtpAdapter;
use League\Flysystem\Ftp\FtpConnectionOptions;
use Tests\Support\FixedClock;
use Tests\Support\FtpDaemon;
use Tests\Support\QuietListener;
use Tests\Support\StandinHost;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;
use Tests\Support\Vsftpd;

require __DIR__.'/../vendor/autoload.php';

// This daemon ends a session when two take one port for data: over one connection where the tests only start it.
define('CONNECTIONS', getenv('BENCHMARK') === 'tiny' ? 1 : 8);
const SMALL_BYTES = 2000;
const LARGE = 3;
// Fewer and smaller where the tests only start it.
define('SMALL', getenv('BENCHMARK') === 'tiny' ? 40 : 1500);
define('LARGE_BYTES', getenv('BENCHMARK') === 'tiny' ? 600_000 : 60_000_000);

/** So many of the small files the plain loop moves, by the length of a round trip; the rest is reckoned. */
const LOOPED = [
    0 => 1500,
    5 => 300,
    20 => 150,
    80 => 45,
];

/** As sites are: the small files lie in directories, which are made as they are sent. */
const FILES_A_DIRECTORY = 50;

/** Round trips on each connection from which the length of one is told. */
const ROUND_TRIPS = 100;

/** Ports for data connections; enough that none is asked for before it is free again. */
const PORTS = [16_000, 16_399];

$part = $argv[1] ?? 'all';
$delays = array_map(intval(...), array_slice($argv, 2)) ?: [0, 5, 20, 80];
$scratch = sys_get_temp_dir().'/transfer-'.bin2hex(random_bytes(6));
mkdir($scratch);

$seconds = static function (Closure $work): float {
    $start = hrtime(true);
    $work();

    return (hrtime(true) - $start) / 1e9;
};

/** The most that any of the engine's workers ever held in memory, in bytes; what this script holds is its own. */
$memory = static function (): int {
    $most = 0;
    $children = explode(' ', trim((string) file_get_contents('/proc/self/task/'.getmypid().'/children')));
    foreach ($children as $process) {
        if (! str_contains((string) @file_get_contents("/proc/$process/cmdline"), 'worker.php')) {
            continue;
        }
        preg_match('/VmHWM:\s+(\d+) kB/', (string) @file_get_contents("/proc/$process/status"), $match);
        $most = max($most, 1024 * (int) ($match[1] ?? 0));
    }

    return $most;
};

$peak = 0;
/** @var list<string> $trips how long a round trip really was */
$trips = [];
/** Connecting, all steps one after the other, and closing: what a run needs that finds nothing open. */
$engine = static function (Endpoint $endpoint, array ...$steps) use ($seconds, $memory, &$peak): float {
    return $seconds(static function () use ($endpoint, $steps, $memory, &$peak): void {
        $pool = new WorkerPool($endpoint, min(CONNECTIONS, max(array_map(count(...), $steps))));
        array_map($pool->run(...), $steps);
        $peak = max($peak, $memory());
        $pool->close();
    });
};

$loop = static fn (Endpoint $endpoint): Filesystem => new Filesystem(new FtpAdapter(FtpConnectionOptions::fromArray([
    'host' => (string) $endpoint->address,
    'port' => $endpoint->port,
    'root' => '/',
    'username' => $endpoint->login,
    'password' => $endpoint->password->reveal(),
    'ssl' => $endpoint->protocol->isEncrypted(),
    'ignorePassiveAddress' => true,
])));

/** This daemon ends a session when two take the same port for data at once; that run does not count. */
$again = static function (Closure $work, int $tries = 4) use ($seconds, &$again): float {
    try {
        return $seconds($work);
    } catch (RuntimeException $failure) {
        return $tries > 1 ? $again($work, $tries - 1) : throw $failure;
    }
};
$curl = static function (Endpoint $endpoint, array $arguments): void {
    $process = proc_open(
        [
            'curl',
            '--silent',
            '--show-error',
            '--fail',
            '--user',
            "$endpoint->login:{$endpoint->password->reveal()}",
            ...($endpoint->protocol->isEncrypted() ? ['--ssl-reqd', '--cacert', (string) $endpoint->authorities] : []),
            '--resolve',
            "$endpoint->host:$endpoint->port:$endpoint->address",
            ...$arguments,
        ],
        [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
        $pipes,
    );
    if ($process === false || proc_close($process) !== 0) {
        throw new RuntimeException('curl failed');
    }
};

/**
 * How long one round trip takes while all connections are busy with nothing else, in seconds. NOOP is answered before
 * signing in as well (RFC 959), by a refusal that is as quick.
 */
$roundTrip = static function (Endpoint $endpoint) use ($seconds): float {
    $open = [];
    for ($connection = 0; $connection < CONNECTIONS; $connection++) {
        $stream = stream_socket_client("tcp://$endpoint->address:$endpoint->port");
        $stream === false && throw new RuntimeException('The server does not answer.');
        fgets($stream);
        $open[$connection] = $stream;
    }
    $left = array_fill(0, CONNECTIONS, ROUND_TRIPS);

    return $seconds(static function () use ($open, $left): void {
        array_map(static fn ($stream) => fwrite($stream, "NOOP\r\n"), $open);
        for ($going = count($open); $going > 0; $going = count($open)) {
            [$answered, $none] = [$open, null];
            stream_select($answered, $none, $none, 10) || throw new RuntimeException('The server fell silent.');
            foreach ($answered as $connection => $stream) {
                fgets($stream) === false && throw new RuntimeException('The server hung up.');
                if (--$left[$connection] > 0) {
                    fwrite($stream, "NOOP\r\n");
                } else {
                    unset($open[$connection]);
                }
            }
        }
    }) / ROUND_TRIPS;
};

$small = "$scratch/small";
file_put_contents($small, random_bytes(SMALL_BYTES));
$large = [];
for ($number = 1; $number <= LARGE; $number++) {
    $large[] = "$scratch/large-$number";
    $stream = fopen("$scratch/large-$number", 'wb');
    for ($bytes = 0; $bytes < LARGE_BYTES; $bytes += 1_000_000) {
        fwrite($stream, random_bytes(1_000_000));
    }
    fclose($stream);
}

$up = static fn (string $to, string $local, int $size): Job => new SendFile(
    $local,
    RemotePath::fromString($to),
    $size,
    $to,
    true,
);
$down = static fn (string $from, string $local, int $size): Job => new FetchFile(
    RemotePath::fromString($from),
    $local,
    $size,
    $from,
);
$store = TestStore::in("$scratch/contents");
$texts = [];
for ($file = 1; $file <= SMALL; $file++) {
    $texts[intdiv($file, FILES_A_DIRECTORY)."/$file"] = random_bytes(SMALL_BYTES);
}
$tree = StagedTree::fromPlan(Planner::plan(StoredFiles::in($store, $texts), Manifest::fromEntries([]), new Policy));
/** The small files as one archive, unpacked at the host and listed as they lie there. */
$unpack = static function (Endpoint $endpoint, StandinHost $host) use ($store, $tree, $scratch): void {
    $root = RemotePath::fromString('/site');
    $order = new RunOrder('bench', $root, Manifest::fromEntries([]), new Policy, EarlierLook::never(), null, []);
    $pool = new WorkerPool($endpoint, CONNECTIONS);
    $laid = (new SwapPaths($root, 'bench'))->laid;
    $pool->run([new MakeDirectory($laid, '')]);
    $at = new HostJobs(
        new LinkedJobs(new ControlService(
            "http://127.0.0.2:$host->controlPort",
            new Secret(StandinHost::TOKEN),
            new CurlWebClient(static fn (): ?string => null),
        )),
        $root,
    );
    $journal = new FileJournal("$scratch/journal-".bin2hex(random_bytes(4)));
    (new LayByUnpacking(
        $pool,
        $store,
        $journal,
        new QuietListener,
        $order,
        $at,
        new FixedClock,
    ))->lay($tree, $root, $laid);
    (new SwapTrees($pool, new Surveyor($pool)))->confirm($tree, $laid);
    $pool->close();
};
$row = static function (string $what, float $ours, array $others) {
    printf('| %-34s | %7.2f s', $what, $ours);
    foreach ($others as $seconds) {
        printf(' | %s', $seconds === null ? str_repeat(' ', 17) : sprintf('%8.2f s %6.2f', $seconds, $seconds / $ours));
    }
    echo " |\n";
};

printf(
    "%d files of %d bytes, %d of %d MB; %d connections\n\n",
    SMALL,
    SMALL_BYTES,
    LARGE,
    LARGE_BYTES / 1e6,
    CONNECTIONS,
);
$heads = [
    'round trip, protocol, what' => 34,
    'engine' => 9,
    'plain loop, times' => 17,
    'curl, times' => 17,
    'bound, times' => 17,
];
$pad = static fn (string $head, int $width): string => str_pad($head, $width);
echo '| '.implode(' | ', array_map($pad, array_keys($heads), $heads))." |\n";
echo '|'.implode('|', array_map(static fn (int $width): string => str_repeat('-', $width + 2), $heads))."|\n";
foreach ([[Protocol::Ftp, ''], [Protocol::FtpsExplicit, '1.3']] as [$protocol, $tls]) {
    foreach ($delays as $delay) {
        $home = "$scratch/".($tls === '' ? 'plain' : 'tls')."-$delay";
        mkdir($home);
        $server = new Vsftpd($home, $protocol, $tls, passivePorts: PORTS);
        // One place for both: what comes in over FTP is what the host unpacks.
        $host = new StandinHost(['space_limit' => 1_000_000_000]);
        rmdir($server->home);
        symlink($host->home, $server->home);
        exec('chown -R '.FtpDaemon::USER.' '.escapeshellarg($host->home));
        exec('chmod 755 '.escapeshellarg($host->directory).' '.escapeshellarg(dirname($host->home)));
        $proxy = proc_open(
            [
                PHP_BINARY,
                __DIR__.'/delaying-proxy.php',
                (string) $delay,
                '127.0.0.1',
                '127.0.0.2',
                (string) $server->port,
                (string) $host->controlPort,
                ...array_map(strval(...), range(...PORTS)),
            ],
            [['file', '/dev/null', 'r'], ['pipe', 'w'], STDERR],
            $pipes,
        );
        fgets($pipes[1]) === "ready\n" || throw new RuntimeException('The proxy did not start.');
        $direct = $server->endpoint();
        $endpoint = new Endpoint(
            $direct->host,
            $direct->port,
            $direct->protocol,
            $direct->login,
            $direct->password,
            '127.0.0.2',
            $direct->authorities,
        );
        try {
            $name = sprintf('%2d ms, %s', $delay, $tls === '' ? 'plain' : "TLS $tls");
            if ($part === 'order') {
                $quick = array_map(
                    static fn (int $file): Job => $up("/small-$file", $small, SMALL_BYTES),
                    range(1, SMALL),
                );
                $slow = array_map(
                    static fn (string $file): Job => $up('/'.basename($file), $file, LARGE_BYTES),
                    $large,
                );
                $orders = ['large first' => [...$slow, ...$quick], 'large last' => [...$quick, ...$slow]];
                foreach ($orders as $order => $jobs) {
                    $pool = new WorkerPool($endpoint, CONNECTIONS, bytesASecond: 10_000_000);
                    $row("$name, $order", $seconds(static fn () => $pool->run($jobs)), []);
                    $pool->close();
                }

                continue;
            }
            if ($part !== 'large') {
                $trip = $roundTrip($endpoint);
                $trips[] = sprintf('%s: %.2f ms', $name, 1000 * $trip);
                $bound = 3 * $trip * SMALL / CONNECTIONS;
                $looped = min(SMALL, LOOPED[$delay] ?? 60);
                $whole = SMALL / $looped;
                $in = static fn (int $file): string => '/up/'.intdiv($file, FILES_A_DIRECTORY);
                $made = array_unique(array_map($in, range(1, SMALL)));
                $ours = $part === 'unpacked' ? null : $engine(
                    $endpoint,
                    [new MakeDirectory(RemotePath::fromString('/up'), '')],
                    array_map(
                        static fn (string $path): Job => new MakeDirectory(RemotePath::fromString($path), ''),
                        $made,
                    ),
                    array_map(
                        static fn (int $file): Job => $up($in($file)."/$file", $small, SMALL_BYTES),
                        range(1, SMALL),
                    ),
                    array_map(static fn (string $path): Job => new ListDirectory(RemotePath::fromString($path)), $made),
                );
                $text = (string) file_get_contents($small);
                $files = $loop($endpoint);
                $theirs = $whole * $seconds(static function () use ($files, $looped, $text): void {
                    for ($file = 1; $file <= $looped; $file++) {
                        $files->write('loop/'.intdiv($file, FILES_A_DIRECTORY)."/$file", $text);
                    }
                });
                $ours === null || $row("$name, small up", $ours, [$theirs, null, $bound]);
                $unpacked = $seconds(static fn () => $unpack($endpoint, $host));
                $row("$name, unpacked there", $unpacked, [$theirs, null, null]);
                if ($part === 'unpacked') {
                    continue;
                }
                $ours = $engine($endpoint, array_map(
                    static fn (int $file): Job => $down($in($file)."/$file", "$scratch/down-$file", SMALL_BYTES),
                    range(1, SMALL),
                ));
                $theirs = $whole * $seconds(static function () use ($files, $looped, $in): void {
                    for ($file = 1; $file <= $looped; $file++) {
                        $files->read($in($file)."/$file");
                    }
                });
                $row("$name, small down", $ours, [$theirs, null, $bound]);
                array_map(unlink(...), glob("$scratch/down-*") ?: []);
            }
            if ($part !== 'small') {
                $scheme = "{$endpoint->protocol->scheme()}://$endpoint->host:$endpoint->port";
                $ours = $engine($endpoint, array_map(
                    static fn (string $file): Job => $up('/'.basename($file), $file, LARGE_BYTES),
                    $large,
                ));
                $theirs = $again(static fn () => $curl($endpoint, [
                    '--parallel',
                    '--upload-file',
                    '{'.implode(',', $large).'}',
                    "$scheme/",
                ]));
                $row("$name, large up", $ours, [null, $theirs, null]);
                $ours = $engine($endpoint, array_map(
                    static fn (string $file): Job => $down('/'.basename($file), "$file.back", LARGE_BYTES),
                    $large,
                ));
                $theirs = $again(static fn () => $curl($endpoint, [
                    '--parallel',
                    ...array_merge(...array_map(
                        static fn (string $file): array => ['-o', "$file.curl", "$scheme/".basename($file)],
                        $large,
                    )),
                ]));
                $row("$name, large down", $ours, [null, $theirs, null]);
            }
        } finally {
            proc_terminate($proxy);
            proc_close($proxy);
            $server->stop();
            $host->stop();
        }
    }
}
echo $trips === [] ? '' : "\na round trip over ".CONNECTIONS.' connections at once: '.implode('; ', $trips)."\n";
printf("\nmost memory of any worker: %.1f MB\n", $peak / 1e6);
exec('rm -rf '.escapeshellarg($scratch));
