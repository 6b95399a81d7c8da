<?php

declare(strict_types=1);

namespace Tests\Support;

use PHPUnit\Event\Test\PreparationStarted;
use PHPUnit\Event\Test\PreparationStartedSubscriber;
use PHPUnit\Runner\Extension\Extension;
use PHPUnit\Runner\Extension\Facade;
use PHPUnit\Runner\Extension\ParameterCollection;
use PHPUnit\TextUI\Configuration\Configuration;
use RuntimeException;

/**
 * Writes the process and the test that is going on into the file that the environment names, so that whoever started
 * the tests sees which one does not end: it is told so by a SIGUSR1 first, and fails with its stack.
 */
final class NowRunning implements Extension
{
    public const FILE = 'CELLARIUM_TESTS_NOW';

    public function bootstrap(Configuration $configuration, Facade $facade, ParameterCollection $parameters): void
    {
        $file = (string) getenv(self::FILE);
        if ($file === '') {
            return;
        }
        pcntl_async_signals(true);
        // What waits for the system is interrupted too, and not begun again.
        pcntl_signal(
            SIGUSR1,
            static fn () => throw new RuntimeException('This test did not end, and was interrupted.'),
            false,
        );
        $facade->registerSubscriber(new class($file) implements PreparationStartedSubscriber
        {
            public function __construct(private readonly string $file)
            {
            }

            public function notify(PreparationStarted $event): void
            {
                file_put_contents($this->file, getmypid()."\n{$event->test()->id()}\n");
            }
        });
    }
}
