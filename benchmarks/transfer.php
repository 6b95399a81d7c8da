<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/transfer.php [FILES] [MILLISECONDS]
 *
 * Sends many small files to the stand-in host, whose every reply waits as long as a round trip would. The baseline, in
 * the same run, is one reused connection; beside it, pools of worker processes. Plain FTP and FTP over TLS.
 */

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Job;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\TransferPool;
use Cellarium\Core\Transfer\WorkerPool;
use Tests\Support\StandinHost;

require __DIR__.'/../vendor/autoload.php';

$files = (int) ($argv[1] ?? 300);
$delay = (int) ($argv[2] ?? 20);
$host = new StandinHost;
$local = "$host->directory/local";
file_put_contents($local, random_bytes(2000));

$measure = static function (TransferPool $pool, string $name) use ($files, $local): float {
    $jobs = array_map(
        static fn (int $number): Job => Job::send(
            $local,
            RemotePath::fromString("/www/$name-$number"),
            2000,
            (string) $number,
        ),
        range(1, $files),
    );
    $start = hrtime(true);
    $pool->run($jobs);
    $pool->close();

    return (hrtime(true) - $start) / 1e9;
};

try {
    $host->faults(['delay_ms' => $delay]);
    printf(
        "%d files of 2000 bytes, each reply after %d ms\n\n%-14s %-22s %8s %8s\n",
        $files,
        $delay,
        'protocol',
        'connections',
        'seconds',
        'ratio',
    );
    foreach ([Protocol::Ftp, Protocol::FtpsExplicit] as $protocol) {
        $baseline = $measure(
            new SequentialPool(new FtpRemoteDirectory($host->endpoint($protocol))),
            "$protocol->value-1",
        );
        printf(
            "%-14s %-22s %8.2f %8.2f\n",
            $protocol->value,
            '1, in this process',
            $baseline,
            1.0,
        );
        foreach ([2, 4, 8] as $lanes) {
            $seconds = $measure(new WorkerPool($host->endpoint($protocol), $lanes), "$protocol->value-$lanes");
            printf(
                "%-14s %-22s %8.2f %8.2f\n",
                $protocol->value,
                "$lanes worker processes",
                $seconds,
                $seconds / $baseline,
            );
        }
    }
} finally {
    $host->stop();
}
