<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/files.php [all|listing|finding|archive]
 *
 * What a maintainer waits for among files, against Debian's vsftpd (as ./test unpacks it) through a proxy that makes
 * every round trip 20 ms long, and without it:
 *
 * listing a directory of 10,000 files, beside one `curl` command that lists the same;
 * finding files by name and by text among 50,000 in 1,000 directories, over eight connections beside one;
 * 2,000 files of 20 kB as an archive that is streamed while they are read, beside `zip` of the same files on the disk,
 * which neither compresses (-0), and a plain loop of `league/flysystem-ftp` that only reads them.
 */

use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteDirectories;
use Cellarium\Core\File\FileMatches;
use Cellarium\Core\File\FileQuery;
use Cellarium\Core\File\Finder;
use Cellarium\Core\File\SentAsZip;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\WorkerPool;
use League\Flysystem\Filesystem;
use League\Flysystem\Ftp\FtpAdapter;
use League\Flysystem\Ftp\FtpConnectionOptions;
use Tests\Support\DelayingProxy;
use Tests\Support\FtpDaemon;
use Tests\Support\Vsftpd;

require __DIR__.'/../vendor/autoload.php';

const PORTS = [16_400, 16_799];
// Fewer, and over one connection, where the tests only start it: this daemon ends a session when two take one port.
define('IS_TINY', getenv('BENCHMARK') === 'tiny');
define('LISTED', IS_TINY ? 20 : 10_000);
define('DIRECTORIES', IS_TINY ? 2 : 1000);
const IN_EACH = 50;
define('ZIPPED', IS_TINY ? 20 : 2000);
const ZIPPED_BYTES = 20_000;
define('CONNECTIONS', IS_TINY ? 1 : 8);

$part = $argv[1] ?? 'all';
$does = static fn (string $one): bool => in_array($part, ['all', $one], true);
$scratch = sys_get_temp_dir().'/files-'.bin2hex(random_bytes(6));
mkdir($scratch);
$seconds = static function (Closure $work): float {
    $start = hrtime(true);
    $work();

    return (hrtime(true) - $start) / 1e9;
};
$server = new Vsftpd($scratch, Protocol::Ftp, '', passivePorts: PORTS);
$home = $server->home;
mkdir("$home/listed");
for ($file = 0; $file < LISTED; $file++) {
    touch("$home/listed/photograph of the harbour $file.jpg");
}
for ($directory = 0; $directory < DIRECTORIES; $directory++) {
    $path = "$home/site/part ".intdiv($directory, 32)."/page $directory";
    mkdir($path, 0755, true);
    for ($file = 0; $file < IN_EACH; $file++) {
        $file === 7
            ? file_put_contents("$path/file-$file.html", "<p>Call 0211 $directory")
            : touch("$path/file-$file.png");
    }
}
mkdir("$home/zipped");
for ($file = 0; $file < ZIPPED; $file++) {
    file_put_contents("$home/zipped/$file.jpg", random_bytes(ZIPPED_BYTES));
}
exec('chown -R '.FtpDaemon::USER.' '.escapeshellarg($home));

$find = static function (Endpoint $endpoint, int $connections, FileQuery $fileQuery) use ($scratch, $seconds): array {
    $found = new FileMatches;
    mkdir("$scratch/found");
    $took = $seconds(static function () use ($endpoint, $connections, $fileQuery, $scratch, $found): void {
        $pool = new WorkerPool($endpoint, $connections);
        (new Finder($pool, "$scratch/found", static function (): void {
        }))->find(RemotePath::fromString('/site'), $fileQuery, $found);
        $pool->close();
    });
    rmdir("$scratch/found");

    return [$took, count($found->found), $found->names];
};
$zip = static function (Endpoint $endpoint) use ($scratch): int {
    $bytes = 0;
    $zip = new ZipOut(static function (string $chunk) use (&$bytes): void {
        $bytes += strlen($chunk);
    });
    $entries = [];
    for ($file = 0; $file < ZIPPED; $file++) {
        $entries[] = new ManifestEntry(
            RelativePath::fromString("$file.jpg"),
            EntryKind::File,
            ZIPPED_BYTES,
            1_700_000_000,
            0644,
        );
    }
    mkdir("$scratch/sent");
    $pool = new WorkerPool($endpoint, CONNECTIONS);
    (new SentAsZip(
        $pool,
        "$scratch/sent",
        $zip,
        static fn (): null => null,
    ))->send(RemotePath::fromString('/zipped'), $entries);
    $pool->close();
    $zip->finish();
    rmdir("$scratch/sent");

    return $bytes;
};

foreach ([0, 20] as $delay) {
    $endpoint = $server->endpoint();
    $proxy = null;
    if ($delay > 0) {
        $proxy = new DelayingProxy($delay, [$server->port, ...range(...PORTS)]);
        $endpoint = $endpoint->at(DelayingProxy::ADDRESS);
    }
    if ($does('listing')) {
        $address = "ftp://$endpoint->address:$endpoint->port/listed/";
        $ours = $seconds(static function () use ($endpoint): void {
            $entries = RemoteDirectories::open($endpoint)->list(RemotePath::fromString('/listed'));
            count($entries) === LISTED || throw new RuntimeException('Not all are listed.');
        });
        $curl = $seconds(static function () use ($address, $endpoint): void {
            exec('curl -s --fail --user '.escapeshellarg("$endpoint->login:{$endpoint->password->reveal()}")
                .' '.escapeshellarg($address).' | wc -l', $said);
            (int) $said[0] >= LISTED || throw new RuntimeException('curl lists less.');
        });
        printf("%2d ms, listing %d: %.2f s; curl %.2f s\n", $delay, LISTED, $ours, $curl);
    }
    if ($does('finding')) {
        $queries = ['name' => new FileQuery('*.html'), 'text' => new FileQuery('*.html', text: '0211 99')];
        foreach ($queries as $how => $fileQuery) {
            [$many, $found, $names] = $find($endpoint, CONNECTIONS, $fileQuery);
            [$one] = $find($endpoint, 1, $fileQuery);
            printf(
                "%2d ms, finding %d by %s among %d: %d connections %.2f s; one %.2f s, %.2f times\n",
                $delay,
                $found,
                $how,
                $names,
                CONNECTIONS,
                $many,
                $one,
                $one / $many,
            );
        }
    }
    if ($does('archive')) {
        $ours = $seconds(static function () use ($zip, $endpoint): void {
            $zip($endpoint) > ZIPPED * ZIPPED_BYTES || throw new RuntimeException('The archive is too short.');
        });
        $loop = $seconds(static function () use ($endpoint): void {
            $files = new Filesystem(new FtpAdapter(FtpConnectionOptions::fromArray([
                'host' => (string) $endpoint->address,
                'port' => $endpoint->port,
                'root' => '/',
                'username' => $endpoint->login,
                'password' => $endpoint->password->reveal(),
                'ignorePassiveAddress' => true,
            ])));
            for ($file = 0; $file < ZIPPED; $file++) {
                $stream = $files->readStream("zipped/$file.jpg");
                stream_get_contents($stream);
            }
        });
        $disk = $seconds(static function () use ($home, $scratch): void {
            exec('cd '.escapeshellarg($home).' && zip -q -0 -r '.escapeshellarg("$scratch/disk.zip").' zipped');
            unlink("$scratch/disk.zip");
        });
        printf(
            "%2d ms, %d files as an archive: %.2f s; plain loop that reads them %.2f s; zip on the disk %.2f s\n",
            $delay,
            ZIPPED,
            $ours,
            $loop,
            $disk,
        );
    }
    $proxy?->stop();
}
$server->stop();
printf("%.0f MB at the most in this process\n", memory_get_peak_usage(true) / 1e6);
