<?php

declare(strict_types=1);

/**
 * Usage: php sweep-race.php sweep|take DIRECTORY [SEED]
 *
 * "sweep" removes all contents but those named in the files of DIRECTORY/kept, again and again, until it is killed.
 * "take" keeps contents that others have, and writes down what it refers to once it has them, until it is killed.
 */

use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\SealedContentStore;
use Tests\Support\TestStore;

require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $what, $directory] = $argv;
$settings = TestStore::settings("$directory/contents");
$work = $settings->work();
$store = new SealedContentStore($settings->objects(), $settings->keys, $work);
$references = static function () use ($directory): Generator {
    foreach (glob("$directory/kept/*.txt") ?: [] as $file) {
        yield from file($file, FILE_IGNORE_NEW_LINES) ?: [];
    }
};
echo "ready\n";
mt_srand((int) ($argv[3] ?? 0));
while (true) {
    if ($what === 'sweep') {
        // Nothing is spared for the day it is usually spared for: only work in progress, and being found again,
        // protect. A clock eight days ahead deletes at once what was moved aside before.
        (new ContentSweep($settings->objects(), $work))->sweep(
            $references(),
            time(),
            time() + random_int(0, 1) * 8 * 86400,
            true,
        );

        continue;
    }
    $store->begin();
    $chosen = [];
    for ($number = 0; $number < 5; $number++) {
        $text = 'contents '.mt_rand(0, 600);
        $sha256 = hash('sha256', $text);
        $chosen[] = mt_rand(0, 1) === 0 && $store->refresh($sha256) ? $sha256 : $store->put([$text])->sha256;
    }
    $name = "$directory/kept/".bin2hex(random_bytes(6));
    file_put_contents($name, implode("\n", $chosen)."\n");
    rename($name, "$name.txt");
    $work->end();
}
