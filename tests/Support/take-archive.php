<?php

declare(strict_types=1);

/**
 * Usage: php -d memory_limit=256M take-archive.php FILE STORE
 *
 * Takes an archive in a process of its own and prints why it was refused, or "taken"; then the memory it took at the
 * most, in bytes.
 */
require dirname(__DIR__, 2).'/vendor/autoload.php';

use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageRefused;
use Tests\Support\FixedClock;
use Tests\Support\TestStore;

try {
    $intake = new PackageIntake(TestStore::in($argv[2]), new FixedClock);
    $intake->take($argv[1], 'site-1.0.zip');
    echo 'taken';
} catch (PackageRefused $refused) {
    echo $refused->reason->value;
}
echo ' ', memory_get_peak_usage(true), "\n";
