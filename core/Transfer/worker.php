<?php

declare(strict_types=1);

/**
 * One connection in a process of its own: reads jobs as JSON lines from standard input, answers on standard output.
 *
 * The first line says where to sign in; secrets come this way and no other. The process ends when its input does, and
 * breaks off what it is doing when the process that started it is gone.
 */

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectories;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Transfer\Job\JobCodec;
use Cellarium\Core\Transfer\JobRunner;
use Cellarium\Core\Transfer\RateLimit;
use Composer\Autoload\ClassLoader;

// Our own classes without the list of all others, whose reading takes longer than anything else at the start.
spl_autoload_register(static function (string $class): void {
    $name = strtr(substr($class, strlen('Cellarium\\Core\\')), '\\', '/');
    $file = dirname(__DIR__)."/$name.php";
    if (str_starts_with($class, 'Cellarium\\Core\\') && is_file($file)) {
        require $file;
    } else {
        $all = require __DIR__.'/../../vendor/autoload.php';
        $all instanceof ClassLoader && $all->loadClass($class);
    }
});

/** @param  array<string, mixed>  $message */
$say = static function (array $message): void {
    $line = json_encode($message, JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE | JSON_THROW_ON_ERROR)."\n";
    if (@fwrite(STDOUT, $line) !== strlen($line)) {
        exit(1);
    }
};

$first = fgets(STDIN);
if ($first === false) {
    exit(0);
}
$fields = JsonFields::fromJson($first);
$endpoint = Endpoint::fromFields($fields);
$rate = $fields->numberOrNull('bytes_a_second');
$limit = $rate === null ? null : new RateLimit($rate);
$store = $fields->has('store') ? StoreSettings::fromFields($fields->fields('store'))->open() : null;
unset($first, $fields);

$parent = posix_getppid();
$told = 0.0;
$carryOn = static function (int $bytes) use ($say, $parent, $limit, &$told): bool {
    if (posix_getppid() !== $parent) {
        return false;
    }
    $wait = $limit?->wait(hrtime(true) / 1e9, $bytes) ?? 0.0;
    // Not for long at a time: whether the process that started it is still there is looked at in between.
    $wait > 0 && usleep((int) (1e6 * min(0.5, $wait)));
    if (hrtime(true) / 1e9 - $told > 0.2) {
        $told = hrtime(true) / 1e9;
        $say(['bytes' => $bytes]);
    }

    return true;
};
$runner = new JobRunner(RemoteDirectories::open($endpoint, new ConnectionSettings, $carryOn), $store);

while (($line = fgets(STDIN)) !== false) {
    try {
        $say(['done' => $runner->run(JobCodec::decode(JsonFields::fromJson($line)))->toArray()]);
    } catch (RemoteFailure $failure) {
        $say([
            'failed' => ['reason' => $failure->reason->value, 'what' => $failure->what, 'said' => $failure->serverSaid],
        ]);
    } catch (Throwable $fault) {
        $say([
            'failed' => [
                'reason' => FailureReason::NotUnderstood->value,
                'what' => 'a transfer worker',
                'said' => $fault->getMessage(),
            ],
        ]);
    }
}
