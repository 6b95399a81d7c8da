<?php

declare(strict_types=1);

/**
 * Usage: php tests/Mutations/mutate.php [NAME]
 *
 * Takes away, one by one and on a copy, the lines that keep what is promised, and runs the few tests that must see it.
 * A line that is not found is a failure, and so is a change that no test sees, or one that is no PHP any more.
 */
const NOT_COPIED = ['.', '..', '.git', 'vendor', 'var'];

$root = dirname(__DIR__, 2);
$mutations = require __DIR__.'/mutations.php';
if (isset($argv[1])) {
    $mutations = array_intersect_key($mutations, [$argv[1] => true]);
}
$mutations === [] && exit("There is no mutation of that name.\n");
$all = count($mutations);
if (getenv('DB_DATABASE') === false) {
    $mutations = array_filter($mutations, static fn (array $one): bool => ! str_starts_with($one['file'], 'app/'));
}
// On the same disk, so that the libraries need not be copied: they look for our classes beside themselves.
$copy = "$root/var/mutate-".bin2hex(random_bytes(6));
mkdir($copy, 0700, true);
register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($copy)));
foreach (array_diff((array) scandir($root), NOT_COPIED) as $part) {
    run(['cp', '-r', "$root/$part", "$copy/$part"], $root)[0] === 0 || exit("$part could not be copied.\n");
}
run(['cp', '-al', "$root/vendor", "$copy/vendor"], $root)[0] === 0 || exit("The libraries could not be linked.\n");

/** @return array{int, string} status and what it said */
function run(array $command, string $in): array
{
    $process = proc_open($command, [1 => ['pipe', 'w'], 2 => ['redirect', 1]], $pipes, $in);
    $said = (string) stream_get_contents($pipes[1]);

    return [proc_close($process), $said];
}

/** @return array{int, string} of the tests in the copy; its own classes and not those of the checkout */
function tests(string $copy, array $tests): array
{
    return run([PHP_BINARY, "$copy/vendor/bin/phpunit", '--do-not-cache-result', '--stop-on-defect', ...$tests], $copy);
}

$green = [];
$survived = 0;
foreach ($mutations as $name => $mutation) {
    $from = hrtime(true);
    $key = implode(' ', $mutation['tests']);
    if (! isset($green[$key])) {
        [$status, $said] = tests($copy, $mutation['tests']);
        $status === 0 || exit("The tests of \"$name\" fail without any change:\n$said\n");
        $green[$key] = true;
    }
    $file = "$copy/{$mutation['file']}";
    $text = (string) file_get_contents($file);
    substr_count($text, $mutation['line']) === 1
        || exit("The line of \"$name\" is not found in {$mutation['file']}, or more than once: say where it is now.\n");
    file_put_contents($file, str_replace($mutation['line'], $mutation['instead'], $text));
    run([PHP_BINARY, '-l', $file], $copy)[0] === 0 || exit("\"$name\" is no PHP any more.\n");
    [$status, $said] = tests($copy, $mutation['tests']);
    file_put_contents($file, $text);
    // 1: a test failed; 2: one ended in an error. Anything else is no answer of a test.
    $isSeen = in_array($status, [1, 2], true)
        && preg_match('/^There (?:was|were) \d+ (?:failure|error)/m', $said) === 1;
    $survived += (int) ! $isSeen;
    $took = round((hrtime(true) - $from) / 1e9, 1);
    echo $isSeen ? 'seen' : 'NOT SEEN', " $name ($took s)\n";
}
printf('%d of %d mutations are seen', count($mutations) - $survived, count($mutations));
echo $all === count($mutations) ? "\n" : '; those of the application are tried by ./test, which has a database'."\n";
exit($survived === 0 ? 0 : 1);
