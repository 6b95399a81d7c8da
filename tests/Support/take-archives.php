<?php

declare(strict_types=1);

/**
 * Usage: prlimit --cpu=10 php -d memory_limit=256M take-archives.php
 *
 * Takes archives, each in a process of its own: a line "DIRECTORY TAB FILE" in, a line out that says why the archive
 * was refused, or "taken"; or how its process ended where it said nothing. Works in DIRECTORY, with the store beside.
 * The limits hold for each, as a process that is forked begins its own reckoning.
 */
require dirname(__DIR__, 2).'/vendor/autoload.php';

use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageRefused;
use Tests\Support\FixedClock;
use Tests\Support\TestStore;

// What is busy beside it takes none of the processor's seconds; one that only waits is ended.
const SECONDS_OF_ALL = 120;

while (($line = fgets(STDIN)) !== false) {
    [$directory, $file] = explode("\t", rtrim($line, "\n"));
    $child = pcntl_fork();
    if ($child === 0) {
        pcntl_alarm(SECONDS_OF_ALL);
        chdir($directory);
        try {
            (new PackageIntake(TestStore::in('store'), new FixedClock))->take($file, 'site-1.0.zip');
            echo "taken\n";
        } catch (PackageRefused $refused) {
            echo "{$refused->reason->value}\n";
        }
        exit(0);
    }
    pcntl_waitpid($child, $status);
    $status === 0 || print 'It ended with '.(pcntl_wifsignaled($status) ? 'signal '.pcntl_wtermsig($status)
        : 'status '.pcntl_wexitstatus($status)).".\n";
}
