<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/proof.php [PAGES] [MILLISECONDS]
 *
 * Fetches changed pages from the stand-in, through a proxy that makes a round trip as long as is said, and hashes them.
 * The baseline, in the same run, is one after the other.
 */

use Cellarium\Core\Web\CurlWebClient;
use Tests\Support\StandinHost;

require __DIR__.'/../vendor/autoload.php';

$pages = (int) ($argv[1] ?? 2000);
$delay = (int) ($argv[2] ?? 0);
$host = new StandinHost;
$proxy = null;
try {
    $root = "$host->directory/homes/harbour/www/site.example";
    is_dir($root) || mkdir($root, 0755, true);
    for ($page = 0; $page < $pages; $page++) {
        file_put_contents("$root/page-$page.html", "<h1>Page $page</h1>".str_repeat('<p>words</p>', 500));
    }
    $proxy = proc_open(
        [PHP_BINARY, __DIR__.'/delaying-proxy.php', (string) $delay, '127.0.0.1', '127.0.0.2', (string) $host->webPort],
        [['file', '/dev/null', 'r'], ['pipe', 'w'], STDERR],
        $pipes,
    );
    fgets($pipes[1]) === "ready\n" || throw new RuntimeException('The proxy did not start.');
    $client = new CurlWebClient(static fn (): string => '127.0.0.2');
    $urls = array_map(
        static fn (int $page): string => "http://site.example:$host->webPort/page-$page.html",
        range(0, $pages - 1),
    );
    $start = hrtime(true);
    $one = array_map(static fn (string $url): string => $client->fetch($url)->sha256, $urls);
    $sequential = (hrtime(true) - $start) / 1e9;
    $start = hrtime(true);
    $answers = $client->fetchMany($urls);
    $many = (hrtime(true) - $start) / 1e9;
    $same = array_map(static fn (string $url): string => $answers[$url]->sha256, $urls) === $one;
    printf(
        "%d pages, round trip of %d ms: one after the other %.2f s, some at once %.2f s (%.2f times as fast), %s\n",
        $pages,
        $delay,
        $sequential,
        $many,
        $sequential / $many,
        $same && $answers[$urls[0]]->status === 200 ? 'all the same' : 'NOT THE SAME',
    );
} finally {
    $proxy === null || proc_terminate($proxy);
    $host->stop();
}
