<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/backups.php [all|backups|sweep|store|drawing] [FILES…]
 *
 * "backups" takes a first, a second and a full-reading backup of a site of so many small files (5,000 and 50,000 where
 * none is said) over FTP with TLS from Debian's proftpd on this machine, over 8 connections, beside a plain loop of
 * `league/flysystem-ftp` that reads a part of them into files; the rest is reckoned. "sweep" clears a store of 20,000
 * contents with a million references. "store" seals and reads back 200 MB beside copying it as it is. "drawing" lays
 * out 2,000 events over five years, beside only sorting them.
 */

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\FilePieces;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Timeline\Lane;
use Cellarium\Core\Timeline\Timeline;
use Cellarium\Core\Timeline\TimelineEvent;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\WorkerPool;
use League\Flysystem\Filesystem;
use League\Flysystem\Ftp\FtpAdapter;
use League\Flysystem\Ftp\FtpConnectionOptions;
use Tests\Support\FixedClock;
use Tests\Support\FtpDaemon;
use Tests\Support\Proftpd;

require __DIR__.'/../vendor/autoload.php';

/** The most connections at a time. */
const CONNECTIONS = 8;

/** Files that the plain loop reads. */
const LOOPED = 300;

const PORTS = [16_800, 17_199];

$part = $argv[1] ?? 'all';
$sizes = array_map(intval(...), array_slice($argv, 2)) ?: [5_000, 50_000];
$scratch = sys_get_temp_dir().'/cellarium-backups-'.bin2hex(random_bytes(6));
mkdir($scratch);
register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($scratch)));

$seconds = static function (Closure $work): float {
    $began = hrtime(true);
    $work();

    return (hrtime(true) - $began) / 1e9;
};

/** Texts as pages are: 2 to 10 kB, in directories of 100. */
$lay = static function (string $home, int $files): int {
    mt_srand(7);
    $bytes = 0;
    for ($number = 0; $number < $files; $number++) {
        $directory = sprintf('%s/site/%04d', $home, intdiv($number, 100));
        is_dir($directory) || mkdir($directory, 0755, true);
        $text = "<h1>Page $number</h1>";
        for ($words = mt_rand(300, 1500); $words > 0; $words--) {
            $text .= dechex(mt_rand(0, 0xFFFFF)).' ';
        }
        $bytes += strlen($text);
        file_put_contents("$directory/page-$number.html", $text);
        touch("$directory/page-$number.html", 1_700_000_000);
    }
    exec('chown -R '.escapeshellarg((string) FtpDaemon::USER).' '.escapeshellarg("$home/site"));

    return $bytes;
};

if ($part === 'all' || $part === 'backups') {
    echo "files    what                      seconds    fetched     memory\n";
    foreach ($sizes as $files) {
        $own = "$scratch/$files";
        mkdir($own);
        mkdir("$own/server");
        $server = new Proftpd("$own/server", Protocol::FtpsExplicit, passivePorts: PORTS);
        $bytes = $lay($server->home, $files);
        $settings = new StoreSettings("$own/contents", ContentKeys::generate());
        $root = RemotePath::fromString('/site');
        $take = static function (?Manifest $known) use ($server, $settings, $own, $root): array {
            memory_reset_peak_usage();
            $store = $settings->bulk()->open();
            $pool = new WorkerPool($server->endpoint(), CONNECTIONS, store: $settings->bulk());
            $surveyor = new Surveyor($pool);
            $look = $known === null ? EarlierLook::never() : EarlierLook::at(4_000_000_000, $known);
            $listed = TrustedListing::fromSurvey($pool, $root, $surveyor->survey($root), $look, 1.0)->knowing($look);
            $backup = (new BackupTaker(
                $pool,
                $store,
                new BackupShelf("$own/backups"),
                new FixedClock,
                $surveyor,
            ))->take($listed);
            $pool->close();

            return [$backup, memory_get_peak_usage()];
        };
        $last = null;
        foreach (['first' => false, 'second, unchanged' => true, 'reading all anew' => false] as $what => $knows) {
            $result = [];
            $took = $seconds(static function () use ($take, $knows, &$last, &$result): void {
                $result = $take($knows ? $last : null);
            });
            [$backup, $memory] = $result;
            $last = $backup->manifest;
            printf("%-8d %-22s %10.2f %10d %7.1f MB\n", $files, $what, $took, $backup->fetchedFiles, $memory / 1e6);
        }
        $endpoint = $server->endpoint();
        $loop = new Filesystem(new FtpAdapter(FtpConnectionOptions::fromArray([
            'host' => '127.0.0.1',
            'root' => '/',
            'port' => $endpoint->port,
            'username' => $endpoint->login,
            'password' => $endpoint->password->reveal(),
            'ssl' => true,
        ])));
        $looped = min(LOOPED, $files);
        $took = $seconds(static function () use ($loop, $scratch, $looped): void {
            for ($number = 0; $number < $looped; $number++) {
                $path = sprintf('site/%04d/page-%d.html', intdiv($number, 100), $number);
                file_put_contents("$scratch/looped", $loop->readStream($path));
            }
        });
        printf("%-8d %-22s %10.2f %10d\n", $files, 'plain loop, reckoned', $took * $files / $looped, $files);
        $stored = array_sum(iterator_to_array($settings->objects()->sizes()));
        printf("%.1f MB on the server, %.1f MB stored\n", $bytes / 1e6, $stored / 1e6);
        $server->stop();
    }
}

if ($part === 'all' || $part === 'sweep') {
    $settings = new StoreSettings("$scratch/sweep", ContentKeys::generate(), isDurable: false);
    $store = $settings->open();
    $hashes = [];
    for ($number = 0; $number < 20_000; $number++) {
        $hashes[] = $store->put(["contents $number"])->sha256;
    }
    unset($store);
    memory_reset_peak_usage();
    foreach ([100_000, 1_000_000] as $count) {
        $references = (static function () use ($hashes, $count): Generator {
            for ($number = 0; $number < $count; $number++) {
                yield $number % 2 === 0 ? $hashes[$number % 19_000] : hash('sha256', "elsewhere $number");
            }
        })();
        $removed = 0;
        $took = $seconds(static function () use ($settings, $references, &$removed): void {
            $sweep = new ContentSweep($settings->objects(), $settings->work());
            $removed = $sweep->sweep($references, time() + 60, time(), true)->asideFiles;
        });
        echo "sweep of 20,000 with $count references: ".round($took, 2)." s, $removed removed\n";
    }
    printf("most memory: %.1f MB\n", memory_get_peak_usage() / 1e6);
}

if ($part === 'all' || $part === 'store') {
    $settings = new StoreSettings("$scratch/store", ContentKeys::generate());
    $store = $settings->open();
    $text = str_repeat('<p>The tide table of March</p> ', 1 << 15);
    foreach (['random', 'text'] as $kind) {
        $file = "$scratch/$kind";
        $out = fopen($file, 'wb');
        for ($bytes = 0; $bytes < 200_000_000; $bytes += 1 << 20) {
            fwrite($out, $kind === 'text' ? $text : random_bytes(1 << 20));
        }
        fclose($out);
        $copied = $seconds(static fn () => exec('cp '.escapeshellarg($file).' '.escapeshellarg("$file.copy").' && sync '
            .escapeshellarg("$file.copy")));
        $content = null;
        $kept = $seconds(static function () use ($store, $file, &$content): void {
            $content = $store->put(FilePieces::read($file));
        });
        $read = $seconds(static fn () => $store->isIntact($content->sha256, $content->size)
            || throw new RuntimeException('It differs.'));
        printf("%s, 200 MB: copied in %.2f s, sealed in %.2f s, read back in %.2f s\n", $kind, $copied, $kept, $read);
    }
}

if ($part === 'all' || $part === 'drawing') {
    mt_srand(3);
    $events = [];
    for ($number = 0; $number < 2_000; $number++) {
        $lane = Lane::cases()[$number % 6];
        $at = mt_rand(0, 5 * 365 * 86400);
        $events[] = new TimelineEvent(
            $lane,
            $at,
            $lane->hasBars() ? $at + mt_rand(3600, 30 * 86400) : null,
            "event $number",
        );
    }
    $sorted = $seconds(static function () use ($events): void {
        usort($events, static fn (TimelineEvent $one, TimelineEvent $other): int => $one->at <=> $other->at);
    });
    $drawn = 0;
    $laid = $seconds(static function () use ($events, &$drawn): void {
        $line = new Timeline($events, 0, 5 * 365 * 86400);
        foreach (Lane::cases() as $lane) {
            $drawn += count($lane->hasBars() ? $line->bars($lane) : $line->marks($lane));
        }
        $line->ticks(new DateTimeZone('Europe/Lisbon'));
    });
    printf("2,000 events: laid out in %.1f ms, %d shapes; sorted in %.1f ms\n", 1e3 * $laid, $drawn, 1e3 * $sorted);
}
