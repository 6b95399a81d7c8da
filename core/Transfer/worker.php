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
use Cellarium\Core\Transfer\Job;
use Cellarium\Core\Transfer\JobRunner;

// Our own classes without the list of all others, whose reading takes longer than anything else at the start.
spl_autoload_register(static function (string $class): void {
    $name = strtr(substr($class, strlen('Cellarium\\Core\\')), '\\', '/');
    $file = dirname(__DIR__)."/$name.php";
    str_starts_with($class, 'Cellarium\\Core\\') && is_file($file)
        ? require $file
        : require_once __DIR__.'/../../vendor/autoload.php';
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
$endpoint = Endpoint::fromFields(JsonFields::fromJson($first));
unset($first);

$parent = posix_getppid();
$told = 0.0;
$carryOn = static function (int $bytes) use ($say, $parent, &$told): bool {
    if (posix_getppid() !== $parent) {
        return false;
    }
    if (microtime(true) - $told > 0.2) {
        $told = microtime(true);
        $say(['bytes' => $bytes]);
    }

    return true;
};
$runner = new JobRunner(RemoteDirectories::open($endpoint, new ConnectionSettings, $carryOn));

while (($line = fgets(STDIN)) !== false) {
    try {
        $say(['done' => $runner->run(Job::fromFields(JsonFields::fromJson($line)))->toArray()]);
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
