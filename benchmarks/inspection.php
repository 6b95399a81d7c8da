<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/inspection.php [PAGES] [PATH/TO/autoload.php]
 *
 * A built site of PAGES pages (2,000) with ten references each. The baseline, in the same run, is what PHP needs to
 * read all entries out of the archive and to hash them; inspecting them may take ten times that, and a site of ten
 * times the pages eleven times the time. With an autoloader that knows masterminds/html5 and
 * sabberworm/php-css-parser, the same pages are parsed by these too: that is why the tokenizer is our own.
 */
chdir(dirname(__DIR__));
require 'vendor/autoload.php';
isset($argv[2]) && require $argv[2];

use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageOrigin;
use Symfony\Component\Clock\NativeClock;
use Tests\Support\TestStore;

$pages = max(20, (int) ($argv[1] ?? 2000));

/** @return array<string, string> contents by name */
$site = static function (int $pages): array {
    $words = explode(' ', 'tide salt marsh ferry gannet lamp harbour quay reed dune wrack shingle curlew');
    $files = [
        'css/site.css' => str_repeat(".a{color:#123;background:url(../img/1.svg)}\n", 40),
        'js/menu.js' => 'let a = 1;',
    ];
    for ($image = 0; $image < 40; $image++) {
        $files["img/$image.svg"] = '<svg xmlns="http://www.w3.org/2000/svg"><rect width="9" height="9"/></svg>';
    }
    for ($page = 0; $page < $pages; $page++) {
        $text = '';
        for ($paragraph = 0; $paragraph < 30; $paragraph++) {
            $text .= '<p class="prose">';
            for ($word = 0; $word < 40; $word++) {
                $text .= $words[($page * 7 + $paragraph * 3 + $word * 5) % count($words)].' ';
            }
            $text .= "<em>{$words[$paragraph % 13]}</em></p>\n";
        }
        $links = '';
        for ($link = 1; $link <= 6; $link++) {
            $links .= '<li><a href="/pages/'.(($page + $link * 17) % $pages).".html\">next</a></li>\n";
        }
        $files["pages/$page.html"] = "<!doctype html>\n<html lang=en><head><meta charset=utf-8>"
            ."<title>Page $page</title>"
            .'<link rel="stylesheet" href="../css/site.css"><script src="../js/menu.js" defer></script></head><body>'
            ."<ul>$links</ul><img src=\"../img/".($page % 40).'.svg" alt="" srcset="/img/'.($page % 39)
            .".svg 2x\">$text</body></html>\n";
    }

    return $files + ['index.html' => '<!doctype html><title>In</title><a href=pages/0.html>in</a>'];
};

/** The shortest of five times, in ms: whatever else this machine does only makes it longer. */
$best = static function (Closure $work): float {
    $times = [];
    for ($time = 0; $time < 5; $time++) {
        $from = hrtime(true);
        $work();
        $times[] = (hrtime(true) - $from) / 1e6;
    }

    return min($times);
};

$measure = static function (int $pages) use ($site, $best): array {
    $files = $site($pages);
    $archive = tempnam(sys_get_temp_dir(), 'references');
    $zip = new ZipArchive;
    $zip->open((string) $archive, ZipArchive::OVERWRITE);
    foreach ($files as $name => $text) {
        $zip->addFromString($name, $text);
    }
    $zip->close();
    $zip->open((string) $archive);
    $baseline = $best(static function () use ($zip): void {
        for ($entry = 0; $entry < $zip->numFiles; $entry++) {
            hash('sha256', (string) $zip->getFromIndex($entry));
        }
    });
    $directory = sys_get_temp_dir().'/references-'.bin2hex(random_bytes(6));
    $intake = new PackageIntake(TestStore::in($directory), new NativeClock);
    $from = hrtime(true);
    $found = $intake->take((string) $archive, 'site-1.0.zip');
    $whole = (hrtime(true) - $from) / 1e6;
    $took = $best(static fn () => $intake->inspector()->inspect(
        $found->manifest,
        PackageOrigin::named('site-1.0.zip'),
    ));
    unlink((string) $archive);
    exec('rm -rf '.escapeshellarg($directory));
    $found->findings === [] || throw new RuntimeException("It found what is not there: {$found->findings[0]->message}");

    return [$baseline, $took, $whole, $files];
};

[$baseline, $took, $whole, $files] = $measure($pages);
[, $tenth] = $measure(intdiv($pages, 10));
printf(
    "read and hashed %d pages, %d KB: %.0f ms\n",
    $pages,
    array_sum(array_map(strlen(...), $files)) / 1000,
    $baseline,
);
printf(
    "%s inspected them, with %d references: %.0f ms, %.1f times that\n",
    $took > 10 * $baseline ? '!' : ' ',
    $pages * 10,
    $took,
    $took / $baseline,
);
printf("  with unpacking and keeping every file safely on the disk: %.0f ms\n", $whole);
printf(
    "%s a tenth of the pages: %.0f ms, so ten times the pages take %.1f times\n",
    $took > 11 * $tenth ? '!' : ' ',
    $tenth,
    $took / $tenth,
);
printf("  memory at the most: %.0f MB, the site itself with it\n", memory_get_peak_usage() / 1e6);
if (class_exists(Masterminds\HTML5::class)) {
    $from = hrtime(true);
    $parser = new Masterminds\HTML5(['disable_html_ns' => true]);
    foreach (array_slice($files, -min(200, $pages)) as $text) {
        $parser->loadHTML($text);
    }
    $all = (hrtime(true) - $from) / 1e6 * $pages / min(200, $pages);
    printf("  masterminds/html5 builds their trees only: %.0f ms for all\n", $all);
}
if (class_exists(Sabberworm\CSS\Parser::class)) {
    $from = hrtime(true);
    (new Sabberworm\CSS\Parser($files['css/site.css']))->parse();
    $theirs = (hrtime(true) - $from) / 1e6;
    $bytes = strlen($files['css/site.css']);
    printf('  sabberworm/php-css-parser for a style sheet of %d bytes: %.1f ms', $bytes, $theirs);
    $from = hrtime(true);
    Cellarium\Core\Reference\Css::scan(new Cellarium\Core\Reference\Document(''), $files['css/site.css']);
    printf("; ours: %.2f ms\n", (hrtime(true) - $from) / 1e6);
}
