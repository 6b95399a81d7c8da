<?php

declare(strict_types=1);

// count.php JUNIT FAILED: prints how many tests there were, went wrong and were skipped, by the report JUNIT; appends
// the names of those that went wrong, and why, to the file FAILED.

[, $junit, $failed] = $argv;
libxml_use_internal_errors(true);
$suite = is_file($junit) ? simplexml_load_file($junit) : false;
if ($suite === false) {
    file_put_contents($failed, basename($junit).": the tests were ended before they had all run.\n", FILE_APPEND);
    exit("1 1 0\n");
}
foreach ($suite->xpath('//testcase[failure or error]') as $case) {
    $why = trim((string) ($case->failure[0] ?? $case->error[0]));
    $lines = array_slice(array_filter(explode("\n", $why), static fn (string $line): bool => trim($line) !== ''), 1, 2);
    file_put_contents(
        $failed,
        "Failed: {$case['class']}::{$case['name']}\n    ".mb_strcut(implode("\n    ", $lines), 0, 500)."\n",
        FILE_APPEND,
    );
}
$all = $suite->testsuite;
$bad = (int) $all['failures'] + (int) $all['errors'];
echo (int) $all['tests'], " $bad ", (int) $all['skipped'], "\n";
