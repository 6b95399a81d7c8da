<?php

declare(strict_types=1);

namespace Tests\Hosting;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Benchmarks that nobody starts rot unseen: each that needs nothing beside itself is started, as small as it goes. Two
 * are started by ./test, beside the application of the browser tests; pages.php is not.
 */
final class BenchmarksTest extends TestCase
{
    /** @return iterable<string, array{list<string>, string}> what is started, and what it says at its end */
    public static function benchmarks(): iterable
    {
        yield 'inspection' => [['inspection', '400'], 'memory at the most'];
        yield 'plan' => [['plan', '200'], 'all of it read'];
        yield 'proof' => [['proof', '5', '1'], 'all the same'];
        yield 'reach' => [['reach', '1'], 'who reaches what'];
        yield 'backups' => [['backups', 'backups', '40'], 'plain loop, reckoned'];
        yield 'drawing' => [['backups', 'drawing'], 'events'];
        yield 'files' => [['files'], 'at the most in this process'];
        yield 'transfer' => [['transfer', 'small', '0'], 'small down'];
        yield 'sftp' => [['sftp', '10', '100000', '0'], 'all of it moved'];
    }

    /** @param  list<string>  $arguments */
    #[DataProvider('benchmarks')]
    public function test_it_comes_to_its_end(array $arguments, string $says): void
    {
        $name = array_shift($arguments);
        $process = proc_open(
            [PHP_BINARY, dirname(__DIR__, 2)."/benchmarks/$name.php", ...$arguments],
            [1 => ['pipe', 'w'], 2 => ['redirect', 1]],
            $pipes,
            null,
            ['BENCHMARK' => 'tiny'] + getenv(),
        );
        self::assertNotFalse($process);
        $said = (string) stream_get_contents($pipes[1]);
        self::assertSame(0, proc_close($process), $said);
        self::assertStringContainsString($says, $said);
    }
}
