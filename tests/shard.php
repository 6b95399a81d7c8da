<?php

declare(strict_types=1);

// shard.php SUITE NUMBER OF: the test classes of a suite (App) that part NUMBER of so many runs, a file a line. Lines
// of a class stand for how long it takes; the largest are dealt out first, each to the part that has least.

[, $suite, $number, $of] = $argv;
$files = glob(__DIR__."/$suite/*Test.php");
$lines = array_combine($files, array_map(static fn (string $file): int => count(file($file)), $files));
arsort($lines);
$parts = array_fill(1, (int) $of, []);
$sums = array_fill(1, (int) $of, 0);
foreach ($lines as $file => $count) {
    $least = array_search(min($sums), $sums, true);
    $parts[$least][] = $file;
    $sums[$least] += $count;
}
sort($parts[(int) $number]);
echo implode("\n", $parts[(int) $number]), "\n";
