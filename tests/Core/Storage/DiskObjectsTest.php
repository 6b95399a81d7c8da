<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\DiskObjects;
use Cellarium\Core\Storage\StoreFailure;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** What is being removed is either gone for whoever looks, or stays: nothing is told to be there and then is not. */
final class DiskObjectsTest extends TestCase
{
    use Scratch;

    private const LONG_AGO = 1_700_000_000;

    public function test_what_an_earlier_version_left_half_way_is_put_back(): void
    {
        $directory = $this->directory();
        $objects = new DiskObjects($directory, false);
        $name = hash('sha256', 'one');
        mkdir("$directory/leaving");
        mkdir("$directory/".substr($name, 0, 2));
        file_put_contents("$directory/leaving/$name", 'one');
        $objects->settle();
        self::assertSame('one', stream_get_contents($objects->open($name)));
        self::assertTrue($objects->refresh($name));
        self::assertSame([], glob("$directory/leaving/*"));
    }

    public function test_a_move_that_was_killed_before_it_noted_the_time_counts_from_the_move_all_the_same(): void
    {
        $directory = $this->directory();
        $objects = new DiskObjects($directory, false);
        $name = hash('sha256', 'one');
        mkdir("$directory/aside");
        file_put_contents("$directory/one", 'one');
        touch("$directory/one", self::LONG_AGO);
        rename("$directory/one", "$directory/aside/$name");
        clearstatcache();
        self::assertSame(self::LONG_AGO, filemtime("$directory/aside/$name"));
        $aside = iterator_to_array($objects->inAside());
        self::assertGreaterThan(time() - 3600, $aside[$name]->movedAt);
        self::assertSame('one', stream_get_contents($objects->open($name)));
        self::assertTrue($objects->refresh($name));
        self::assertSame([], glob("$directory/aside/*"));
        self::assertFileExists("$directory/".substr($name, 0, 2).'/'.substr($name, 2));
    }

    public function test_refreshing_what_is_not_there_makes_no_empty_file(): void
    {
        $directory = $this->directory();
        $objects = new DiskObjects($directory, false);
        $name = hash('sha256', 'nothing');
        self::assertFalse($objects->refresh($name));
        self::assertFalse($objects->has($name));
        $this->expectException(StoreFailure::class);
        $objects->open($name);
    }

    /** Two thousand times at the same moment, by two processes. */
    public function test_what_somebody_has_refreshed_is_not_removed(): void
    {
        $directory = $this->directory();
        $said = "$directory/said";
        $child = pcntl_fork();
        if ($child === 0) {
            for ($number = 0; true; $number++) {
                while (! is_file("$directory/seen-$number") && ! is_file("$directory/$number")) {
                    clearstatcache();
                }
                DiskObjects::touch("$directory/$number") && file_put_contents($said, "$number\n", FILE_APPEND);
                file_put_contents("$directory/tried-$number", '');
            }
        }
        // Until both have won often enough; where they share one processor, one of them hardly ever does.
        $refreshed = static fn (): array => is_file($said) ? (array) file($said, FILE_IGNORE_NEW_LINES) : [];
        for ($number = $out = 0; $number < 5_000 && min($out, count($refreshed())) <= 20; $number++) {
            file_put_contents("$directory/new", 'x');
            touch("$directory/new", self::LONG_AGO);
            rename("$directory/new", "$directory/$number");
            for ($wait = random_int(0, 400); $wait > 0; $wait--);
            $out += DiskObjects::moveOut("$directory/$number", "$directory/out-$number", time() - 60) ? 1 : 0;
            file_put_contents("$directory/seen-$number", '');
            while (! is_file("$directory/tried-$number")) {
                clearstatcache();
            }
        }
        posix_kill($child, SIGKILL); // Nothing of the test's own is to end with it.
        pcntl_waitpid($child, $status);
        $lost = array_filter($refreshed(), static fn (string $one): bool => ! is_file("$directory/$one"));
        self::assertSame([], $lost);
        self::assertGreaterThan(20, $out, 'some were removed');
        self::assertGreaterThan(20, count($refreshed()), 'and some were refreshed');
    }
}
