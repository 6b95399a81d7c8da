<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/sftp.php [FILES] [BYTES] [MILLISECONDS…]
 *
 * Moves FILES small files of 2 kB (600 where nothing is said) and three of BYTES (20,000,000) up and down over SFTP,
 * between this machine and Debian's openssh-server, through a proxy that makes every round trip as long as is said (0,
 * 20 and 40 ms). Beside the engine, in the same run and against the same server: one `sftp -b` of OpenSSH with the same
 * files in its batch. Signing in by itself is measured too, and which library computes with large numbers (phpseclib
 * takes gmp where PHP has it).
 */

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\SftpRemoteDirectory;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\SendFile;
use Cellarium\Core\Transfer\WorkerPool;
use phpseclib3\Math\BigInteger;
use Tests\Support\DelayingProxy;
use Tests\Support\SshServer;

require __DIR__.'/../vendor/autoload.php';

const CONNECTIONS = 8;
const SMALL_BYTES = 2_000;
const LARGE = 3;

$files = (int) ($argv[1] ?? 600);
$bytes = (int) ($argv[2] ?? 20_000_000);
$delays = array_map(intval(...), array_slice($argv, 3)) ?: [0, 20, 40];
$scratch = sys_get_temp_dir().'/sftp-'.bin2hex(random_bytes(6));
mkdir($scratch);
register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($scratch)));

$seconds = static function (Closure $work): float {
    $start = hrtime(true);
    $work();

    return (hrtime(true) - $start) / 1e9;
};

/** @param  list<string>  $batch  commands of sftp(1) */
$sftp = static function (Endpoint $endpoint, array $batch) use ($scratch): void {
    file_put_contents("$scratch/batch", implode("\n", $batch)."\n");
    $process = proc_open(
        [
            'sftp',
            '-q',
            '-b',
            "$scratch/batch",
            '-P',
            (string) $endpoint->port,
            '-i',
            "$scratch/mine",
            '-o',
            'StrictHostKeyChecking=no',
            '-o',
            'UserKnownHostsFile=/dev/null',
            "$endpoint->login@$endpoint->address",
        ],
        [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', "$scratch/said", 'w']],
        $pipes,
    );
    if ($process === false || proc_close($process) !== 0) {
        throw new RuntimeException('sftp failed: '.file_get_contents("$scratch/said"));
    }
};

$engine = static function (Endpoint $endpoint, array $jobs): void {
    $pool = new WorkerPool($endpoint, min(CONNECTIONS, count($jobs)));
    $pool->run($jobs);
    $pool->close();
};

file_put_contents("$scratch/small", random_bytes(SMALL_BYTES));
for ($number = 1; $number <= LARGE; $number++) {
    $stream = fopen("$scratch/large-$number", 'wb');
    for ($left = $bytes; $left > 0; $left -= 1_000_000) {
        fwrite($stream, random_bytes(min(1_000_000, $left)));
    }
    fclose($stream);
}

$server = new SshServer($scratch);
$key = $server->key('mine', 'ed25519');
chmod("$scratch/mine", 0600);
$server->authorize('mine');
$send = static fn (string $local, string $to, int $size): Job => new SendFile(
    $local,
    RemotePath::fromString("/$to"),
    $size,
    $to,
    true,
);
$fetch = static fn (string $from, string $local, int $size): Job => new FetchFile(
    RemotePath::fromString("/$from"),
    $local,
    $size,
    $from,
);
$row = static function (string $what, float $ours, ?float $theirs): void {
    printf(
        "| %-26s | %7.2f s | %s |\n",
        $what,
        $ours,
        $theirs === null ? str_repeat(' ', 17) : sprintf('%7.2f s %6.2f', $theirs, $theirs / $ours),
    );
};

printf(
    "%d files of %d bytes, %d of %.1f MB; %d connections; large numbers by %s\n\n",
    $files,
    SMALL_BYTES,
    LARGE,
    $bytes / 1e6,
    CONNECTIONS,
    BigInteger::getEngine()[0],
);
echo "| round trip, what           | engine    | sftp -b, times    |\n";
echo "|----------------------------|-----------|-------------------|\n";
foreach ($delays as $delay) {
    $proxy = $delay === 0 ? null : new DelayingProxy($delay, [$server->port]);
    $direct = $server->endpoint(key: $key);
    $endpoint = new Endpoint(
        $direct->host,
        $direct->port,
        $direct->protocol,
        $direct->login,
        $direct->password,
        $proxy === null ? '127.0.0.1' : DelayingProxy::ADDRESS,
        null,
        $direct->pin,
        $direct->key,
    );
    $name = sprintf('%2d ms, ', $delay);
    try {
        $row($name.'signing in', $seconds(static function () use ($endpoint): void {
            (new SftpRemoteDirectory($endpoint, new ConnectionSettings))->list(RemotePath::root());
        }), $seconds(static fn () => $sftp($endpoint, ['pwd'])));
        $numbers = range(1, $files);
        $row($name.'small up', $seconds(static fn () => $engine($endpoint, array_map(
            static fn (int $file): Job => $send("$scratch/small", "ours-$file", SMALL_BYTES),
            $numbers,
        ))), $seconds(static fn () => $sftp($endpoint, array_map(
            static fn (int $file): string => "put $scratch/small theirs-$file",
            $numbers,
        ))));
        $row($name.'small down', $seconds(static fn () => $engine($endpoint, array_map(
            static fn (int $file): Job => $fetch("ours-$file", "$scratch/down-$file", SMALL_BYTES),
            $numbers,
        ))), $seconds(static fn () => $sftp($endpoint, array_map(
            static fn (int $file): string => "get theirs-$file $scratch/got-$file",
            $numbers,
        ))));
        $row($name.'large up', $seconds(static fn () => $engine($endpoint, array_map(
            static fn (int $file): Job => $send("$scratch/large-$file", "large-$file", $bytes),
            range(1, LARGE),
        ))), $seconds(static fn () => $sftp($endpoint, array_map(
            static fn (int $file): string => "put $scratch/large-$file theirs-large-$file",
            range(1, LARGE),
        ))));
        $row($name.'large down', $seconds(static fn () => $engine($endpoint, array_map(
            static fn (int $file): Job => $fetch("large-$file", "$scratch/back-$file", $bytes),
            range(1, LARGE),
        ))), $seconds(static fn () => $sftp($endpoint, array_map(
            static fn (int $file): string => "get theirs-large-$file $scratch/theirs-back-$file",
            range(1, LARGE),
        ))));
    } finally {
        $proxy?->stop();
    }
    array_map(unlink(...), glob("$scratch/{down,got,back,theirs-back}-*", GLOB_BRACE) ?: []);
}
$server->stop();
echo "\nall of it moved\n";
