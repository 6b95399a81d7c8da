<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Storage\TooMuchToSweep;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FullDisk;
use Tests\Support\Scratch;
use Tests\Support\SweepRace;
use Tests\Support\TestStore;

/** What nothing refers to goes, and nothing else does. */
final class ContentSweepTest extends TestCase
{
    use Scratch;

    private const LONG_AGO = 1_700_000_000;

    public function test_what_is_referred_to_or_new_stays_and_the_rest_goes(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $kept = [];
        for ($number = 0; $number < 200; $number++) {
            $content = $store->put(["bytes $number"]);
            touch(TestStore::file($directory, $content->sha256), self::LONG_AGO);
            $number % 3 === 0 ?: $kept[] = $content->sha256;
        }
        $new = $store->put(['on its way in'])->sha256;
        $again = $store->put(['bytes 3'])->sha256;
        $refreshed = hash('sha256', 'bytes 9');
        self::assertTrue($store->refresh($refreshed));
        unset($store);
        shuffle($kept);
        $references = (static function () use ($kept): \Generator {
            yield from $kept;
            yield from array_slice($kept, 0, 50);
            yield str_repeat('0', 64);
        })();
        $swept = self::sweep(TestStore::settings($directory))->sweep($references, time() - 60, time(), true);
        self::assertSame(65, $swept->asideFiles, 'a third, but for the two that were found again');
        self::assertGreaterThan(400, $swept->asideBytes);
        self::assertSame([0, 0, 0], [$swept->backFiles, $swept->deletedFiles, $swept->freedBytes]);
        $store = TestStore::in($directory);
        foreach ([...$kept, $new, $again, $refreshed] as $sha256) {
            self::assertTrue($store->has($sha256));
        }
        $gone = hash('sha256', 'bytes 6');
        self::assertNotContains(
            $gone,
            array_keys(iterator_to_array(TestStore::settings($directory)->objects()->sizes())),
        );
        self::assertSame('bytes 6', $store->text($gone), 'it is read where it lies aside');
    }

    public function test_what_was_moved_aside_comes_back_or_is_deleted_a_week_later(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        [$stored, $found, $referred, $gone] = array_map(static function (string $text) use (
            $store,
            $directory,
        ): string {
            $sha256 = $store->put([$text])->sha256;
            touch(TestStore::file($directory, $sha256), self::LONG_AGO);

            return $sha256;
        }, ['stored again', 'found again', 'referred to again', 'gone']);
        unset($store);
        $sweep = static fn (int $now, string ...$kept) => self::sweep(TestStore::settings($directory))->sweep(
            $kept,
            time() - 60,
            $now,
            true,
        );
        self::assertSame(4, $sweep(time())->asideFiles);
        $store = TestStore::in($directory);
        self::assertSame($stored, $store->put(['stored again'])->sha256);
        self::assertTrue($store->refresh($found));
        unset($store);
        $swept = $sweep(time() + 6 * 86400, $referred);
        self::assertSame([0, 1, 0], [$swept->asideFiles, $swept->backFiles, $swept->deletedFiles], 'within the week');
        $swept = $sweep(time() + 8 * 86400, ...[$referred, $stored, $found]);
        self::assertSame([0, 1], [$swept->backFiles, $swept->deletedFiles]);
        self::assertGreaterThan(0, $swept->freedBytes);
        $store = TestStore::in($directory);
        foreach ([$stored => 'stored again', $found => 'found again', $referred => 'referred to '
            .'again'] as $sha256 => $text) {
            self::assertSame($text, $store->text($sha256));
        }
        self::assertFalse($store->has($gone));
    }

    public function test_short_of_room_what_lies_aside_goes_at_once_but_for_what_is_referred_to(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $names = array_map(static fn (string $text): string => $store->put([$text])->sha256, ['kept', 'gone']);
        unset($store);
        $settings = TestStore::settings($directory);
        self::assertSame(2, self::sweep($settings)->sweep([], time() + 60, time(), true)->asideFiles);
        $swept = self::sweep($settings)->emptyAside([$names[0]]);
        self::assertSame([1, 1], [$swept->backFiles, $swept->deletedFiles]);
        self::assertSame([true, false], array_map(TestStore::in($directory)->has(...), $names));
    }

    /**
     * @return iterable<string, array{int, int, bool}> contents, how many of them nothing refers to, whether it goes on
     */
    public static function shares(): iterable
    {
        yield 'a tenth' => [30, 3, true];
        yield 'one more' => [30, 4, false];
        yield 'all, as where the database is empty' => [5, 5, false];
        yield 'none' => [5, 0, true];
    }

    #[DataProvider('shares')]
    public function test_more_than_a_tenth_at_once_needs_a_person(int $all, int $unreferenced, bool $goesOn): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $names = array_map(static fn (int $one): string => $store->put(["bytes $one"])->sha256, range(1, $all));
        unset($store);
        $sweep = static fn (bool $however) => self::sweep(TestStore::settings($directory))->sweep(
            array_slice($names, $unreferenced),
            time() + 60,
            time(),
            $however,
        );
        try {
            self::assertSame($unreferenced, $sweep(false)->asideFiles);
            self::assertTrue($goesOn, 'It was asked for nothing.');
        } catch (TooMuchToSweep $much) {
            self::assertFalse($goesOn, $much->getMessage());
            self::assertSame([$unreferenced, $all], [$much->going, $much->of]);
            self::assertSame([], glob("$directory/aside/*") ?: []);
            self::assertSame($unreferenced, $sweep(true)->asideFiles);
        }
    }

    public function test_what_is_new_counts_for_nothing_that_would_go(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $store->put(['on its way in']);
        $store->put(['this one too']);
        unset($store);
        $swept = self::sweep(TestStore::settings($directory))->sweep([], time() - 60, time());
        self::assertSame(0, $swept->asideFiles, 'and nobody is asked');
    }

    public function test_what_is_referred_to_and_not_there_is_named(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $names = array_map(static fn (int $one): string => $store->put(["bytes $one"])->sha256, range(1, 9));
        unset($store);
        $settings = TestStore::settings($directory);
        unlink(TestStore::file($directory, $names[3]));
        $settings->objects()->moveAside($names[4], time() + 60);
        $lost = [$names[3], str_repeat('0', 64), str_repeat('f', 64)];
        self::assertEqualsCanonicalizing($lost, iterator_to_array(
            self::sweep($settings)->missing([...$names, ...$lost]),
            false,
        ));
    }

    public function test_what_a_process_at_work_has_put_there_stays_however_long_it_takes_by_any_clock(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $sha256 = $store->put(['of a backup that takes its time'])->sha256;
        $sweep = self::sweep(TestStore::settings($directory));
        $inTwoDays = time() + 2 * 86400;
        $files = static fn (): int => $sweep->sweep([], $inTwoDays, time(), true)->asideFiles;
        self::assertSame(0, $files());
        self::assertTrue($store->has($sha256));
        unset($store); // It ended, and nothing refers to what it put there.
        self::assertSame(1, $files());
    }

    public function test_where_not_even_a_list_of_what_is_in_use_can_be_written_nothing_goes_and_it_is_told(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        foreach (['kept', 'gone'] as $text) {
            touch(TestStore::file($directory, $store->put([$text])->sha256), self::LONG_AGO);
        }
        unset($store);
        $sweep = static fn (): int => self::sweep(TestStore::settings($directory))->sweep(
            [hash('sha256', 'kept')],
            time() - 60,
            time(),
            true,
        )->asideFiles;
        try {
            FullDisk::during(0, $sweep);
            self::fail('It was cleared without knowing what is in use.');
        } catch (StoreFailure $failure) {
            self::assertSame(StoreFault::NotWritten, $failure->fault);
        }
        self::assertSame('gone', TestStore::in($directory)->text(hash('sha256', 'gone')));
        self::assertSame(1, $sweep());
        self::assertSame('kept', TestStore::in($directory)->text(hash('sha256', 'kept')));
    }

    public function test_references_that_cannot_be_listed_whole_remove_nothing(): void
    {
        $directory = $this->directory();
        $sha256 = TestStore::in($directory)->put(['kept'])->sha256;
        $references = (static function (): \Generator {
            yield str_repeat('0', 64);
            throw new \RuntimeException('the database is gone');
        })();
        try {
            self::sweep(TestStore::settings($directory))->sweep($references, time() + 60, time(), true);
            self::fail('It went on.');
        } catch (\RuntimeException $failure) {
            self::assertSame('the database is gone', $failure->getMessage());
        }
        self::assertTrue(TestStore::in($directory)->has($sha256));
    }

    /** Thirty times, beside somebody who keeps contents and refers to them. */
    public function test_killed_at_any_moment_nothing_that_is_referred_to_is_lost(): void
    {
        $directory = $this->directory();
        mkdir("$directory/kept");
        $removed = 0;
        for ($round = 0; $round < 30; $round++) {
            $before = self::agedNames($directory);
            $processes = [SweepRace::sweeping($directory), SweepRace::taking($directory, $round)];
            usleep(random_int(2_000, 40_000));
            array_map(static fn (SweepRace $one) => $one->kill(), $processes);
            $removed += count(array_diff($before, self::names($directory)));
            $store = TestStore::in("$directory/contents");
            $files = glob("$directory/kept/*.txt") ?: [];
            foreach ($files as $file) {
                foreach (file($file, FILE_IGNORE_NEW_LINES) ?: [] as $sha256) {
                    self::assertStringStartsWith('contents ', $store->text($sha256));
                }
            }
            unset($store);
            // Most are let go of, so that there is something to remove.
            array_map(unlink(...), array_slice($files, 0, (int) (count($files) * 0.9)));
        }
        self::assertGreaterThan(30, $removed, 'it did remove some, time and again');
    }

    /** @return list<string> */
    private static function names(string $directory): array
    {
        return array_keys(iterator_to_array(TestStore::settings("$directory/contents")->objects()->sizes()));
    }

    /** @return list<string> of what is there, which is old from now on */
    private static function agedNames(string $directory): array
    {
        $names = self::names($directory);
        foreach ($names as $name) {
            touch(TestStore::file("$directory/contents", $name), self::LONG_AGO);
        }

        return $names;
    }

    private static function sweep(StoreSettings $settings): ContentSweep
    {
        return new ContentSweep($settings->objects(), $settings->work());
    }
}
