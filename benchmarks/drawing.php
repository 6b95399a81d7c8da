<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/drawing.php >docs/performance.svg
 *
 * Draws what docs/performance.md says of 1,500 small files sent over TLS: for each round trip the engine, the bound and
 * a plain loop, on a logarithmic scale of seconds.
 */
const LEFT = 150;
const WIDTH = 900;
const MOST_SECONDS = 2000.0;

$text = (string) file_get_contents(__DIR__.'/../docs/performance.md');
preg_match_all(
    '/^\| (\d+) ms, TLS 1\.3, small up \| ([\d.]+) s \| ([\d.]+) s,[^|]*\|[^|]*\|(?: ([\d.]+) s,[^|]*)? *\|$/m',
    $text,
    $rows,
    PREG_SET_ORDER | PREG_UNMATCHED_AS_NULL,
);
count($rows) > 2 || throw new RuntimeException('docs/performance.md has no rows of small files sent over TLS.');
$long = static fn (float $seconds): float => round(
    log(max(1.0, $seconds)) / log(MOST_SECONDS) * (WIDTH - LEFT - 110),
    1,
);
$svg = '';
$y = 46;
foreach ($rows as [, $delay, $engine, $loop, $bound]) {
    $svg .= '<text x="20" y="'.($y + 25)."\" font-weight=\"700\">$delay ms</text>\n";
    $bars = [['#1c6b64', $engine, 'Cellarium'], ['#d9a441', $bound, 'bound'], ['#b9b1a2', $loop, 'plain loop']];
    foreach ($bars as [$fill, $seconds, $what]) {
        if ($seconds !== null) {
            $width = $long((float) $seconds);
            $svg .= '<rect x="'.LEFT."\" y=\"$y\" width=\"$width\" height=\"12\" fill=\"$fill\"/>"
                .'<text x="'.(LEFT + $width + 8).'" y="'.($y + 10)."\" font-size=\"11\">$seconds s, $what</text>\n";
        }
        $y += 15;
    }
    $y += 12;
}
echo '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 '.WIDTH." $y\" font-family=\"sans-serif\" font-size=\"13\" "
    ."fill=\"#20292c\" role=\"img\" aria-label=\"Seconds for 1,500 small files sent over TLS, by round trip\">\n"
    ."<rect width=\"100%\" height=\"100%\" fill=\"#fffdf8\"/>\n"
    ."<text x=\"20\" y=\"26\">1,500 files of 2 kB and 8 connections over TLS 1.3, by round trip; logarithmic</text>\n"
    ."$svg</svg>\n";
