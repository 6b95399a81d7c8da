<?php

declare(strict_types=1);

/**
 * Usage: php demo/build.php DIR
 *
 * Writes DIR/content/<domain>/ (sites that were live before) and DIR/packages/*.zip. Packages that ship with the
 * application are written to demo/packages/ as well.
 */

require __DIR__.'/SiteBuilder.php';

/** @param  array<string, string>  $files */
function zip(string $to, string $wrapper, array $files, int $time): void
{
    @unlink($to);
    $zip = new ZipArchive;
    $zip->open($to, ZipArchive::CREATE) === true || exit(1);
    $zip->addEmptyDir($wrapper);
    $zip->setMtimeName("$wrapper/", $time);
    foreach ($files as $path => $text) {
        $zip->addFromString("$wrapper/$path", $text);
        $zip->setMtimeName("$wrapper/$path", $time);
    }
    $zip->close() || exit(1);
}

date_default_timezone_set('UTC');
$to = $argv[1] ?? exit("Usage: php demo/build.php DIR\n");
foreach (["$to/content", "$to/packages"] as $directory) {
    is_dir($directory) || mkdir($directory, 0755, true);
}
/**
 * @var array<string, array{
 *     title: string,
 *     line: string,
 *     accent: string,
 *     pages: array<string, string>,
 *     old?: bool,
 *     versions: list<string>,
 *     package?: string,
 *     ship?: bool,
 * }>  $sites
 */
$sites = json_decode((string) file_get_contents(__DIR__.'/sites.json'), true, 16, JSON_THROW_ON_ERROR);
$time = (int) strtotime('2026-09-01 09:00');
foreach ($sites as $domain => $site) {
    if ($site['old'] ?? false) {
        foreach ((new SiteBuilder($site, 'from before'))->files() as $path => $text) {
            $file = "$to/content/$domain/$path";
            is_dir(dirname($file)) || mkdir(dirname($file), 0755, true);
            file_put_contents($file, $text);
            touch($file, (int) strtotime('2025-05-14 11:20') + strlen($path) * 3600);
        }
    }
    foreach ($site['versions'] as $index => $version) {
        $package = ($site['package'] ?? 'site')."-$version.zip";
        $target = $site['ship'] ?? false ? __DIR__."/packages/$package" : "$to/packages/$package";
        zip(
            $target,
            ($site['package'] ?? 'site')."-$version",
            (new SiteBuilder($site, $version))->files(),
            $time + $index * 86400 * 20,
        );
    }
}

// A version on its way, packed too early: what the inspection is for.
$draft = (new SiteBuilder($sites['thriftcampion.example'], '5.2-rc1'))->files();
$draft['spring.html'] = <<<'HTML'
    <!doctype html>
    <html lang="en">
    <title>Spring sowing</title>
    <link rel="stylesheet" href="assets/style.css">
    <h1>Spring sowing</h1>
    <img src="img/Map.svg" alt="Where the trial beds lie">
    <p>See <a href="sowing.htm">what to sow when</a>, <a href="trials/">our trials</a>
    and <a href="vegetables.html#kohlrabi">kohlrabi</a>.</p>
    <img src="file:///C:/Users/campion/Desktop/spring.jpg" alt="Seedlings">
    <p>The prices for spring: coming soon.</p>
    <script src="http://localhost:4000/reload.js"></script>
    HTML;
$draft['trials/beds.html'] = "<!doctype html>\n<title>Trial beds</title>\n<p><a href=\"../index.html\">Home</a>\n";
$draft['spring.html~'] = "<title>Spring</title>\n";
$draft['config/.env'] = "ORDERS_TO=orders@thriftcampion.example\nSHOP_PASSWORD=made-up-for-the-demo\n";
zip("$to/packages/thrift-campion-5.2-rc1.zip", 'thrift-campion-5.2-rc1', $draft, $time + 86400 * 60);

/**
 * @return array<string, string> what lies below a directory, by path
 */
function below(string $directory): array
{
    $files = [];
    $all = new RecursiveIteratorIterator(new RecursiveDirectoryIterator($directory, FilesystemIterator::SKIP_DOTS));
    foreach ($all as $file) {
        $files[substr((string) $file, strlen($directory) + 1)] = (string) file_get_contents((string) $file);
    }
    ksort($files);

    return $files;
}

// The made-up content-management system: a new installation, an update, a theme and an extension.
$system = below(__DIR__.'/quaylight/system');
$next = array_diff_key($system, ['setup.php' => 0]);
$next['quaylight.php'] = str_replace("'2.4'", "'2.5'", $next['quaylight.php']);
$next['update.ini'] = "from = 2.4\nto = 2.5\n";
foreach (
    [
        'quaylight-2.4' => $system,
        'quaylight-2.5' => $next,
        'shore-1.2' => below(__DIR__.'/quaylight/shore'),
        'tides-1.0' => below(__DIR__.'/quaylight/tides'),
        // An application whose public folder is the document root.
        'berth-book-1.0' => below(__DIR__.'/berth-book'),
    ] as $name => $files
) {
    zip("$to/packages/$name.zip", $name, $files, $time + 86400 * 30);
}
