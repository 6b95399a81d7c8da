<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;
use Cellarium\Core\Storage\StoreSettings;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

/** Contents come out as they went in, or not at all; on the disk nobody reads them without the key. */
final class SealedContentStoreTest extends TestCase
{
    use Scratch;

    /** @return iterable<string, array{int, bool}> bytes, and whether they are all alike */
    public static function sizes(): iterable
    {
        foreach ([0, 1, 65_535, 65_536, 65_537, 131_072, 262_144, 262_145, 1_000_000] as $size) {
            yield "$size random bytes" => [$size, false];
            yield "$size bytes alike" => [$size, true];
        }
    }

    #[DataProvider('sizes')]
    public function test_contents_of_any_size_come_out_as_they_went_in(int $size, bool $alike): void
    {
        $store = TestStore::in($this->directory());
        $bytes = $alike || $size === 0 ? str_repeat('a', $size) : random_bytes($size);
        $content = $store->put(str_split($bytes, 10_000));
        self::assertSame([hash('sha256', $bytes), $size], [$content->sha256, $content->size]);
        self::assertSame($bytes, $store->text($content->sha256));
        self::assertSame(substr($bytes, 0, 100), $store->text($content->sha256, 100));
        self::assertTrue($store->isIntact($content->sha256, $size));
        self::assertFalse($store->isIntact($content->sha256, $size + 1));
    }

    public function test_on_the_disk_they_are_small_where_that_pays_and_unreadable(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $text = str_repeat('define("DB_PASSWORD", "low-water"); ', 5_000);
        $sealed = (string) file_get_contents(TestStore::file($directory, $store->put([$text])->sha256));
        self::assertLessThan(strlen($text) / 20, strlen($sealed));
        self::assertStringNotContainsString('low-water', $sealed);
        $random = random_bytes(200_000);
        $sealed = TestStore::file($directory, $store->put([$random])->sha256);
        self::assertLessThan(200_200, filesize($sealed), 'what does not shrink is not made larger');
        self::assertSame(0600, fileperms($sealed) & 0777);
        self::assertSame(0700, fileperms(dirname($sealed)) & 0777);
    }

    public function test_whatever_is_done_to_a_stored_file_is_noticed(): void
    {
        $directory = $this->directory();
        $store = TestStore::in($directory);
        $bytes = random_bytes(200_000);
        $sha256 = $store->put([$bytes])->sha256;
        $other = $store->put([random_bytes(200_000)])->sha256;
        $file = TestStore::file($directory, $sha256);
        $sealed = (string) file_get_contents($file);
        $piece = 65_536 + 17;
        $header = 21 + 24;
        $done = [
            'another version' => self::with($sealed, 3, '2'),
            'said to be compressed' => self::with($sealed, 20, 'z'),
            'another header' => self::with($sealed, 30, chr(ord($sealed[30]) ^ 1)),
            'cut in the header' => substr($sealed, 0, 30),
            'cut to nothing' => '',
            'two pieces exchanged' => substr($sealed, 0, $header).substr($sealed, $header + $piece, $piece)
                .substr($sealed, $header, $piece).substr($sealed, $header + 2 * $piece),
            'a piece left out' => substr($sealed, 0, $header).substr($sealed, $header + $piece),
            'something behind it' => "$sealed.",
            'other contents under its name' => (string) file_get_contents(TestStore::file($directory, $other)),
        ];
        $second = $header + $piece;
        foreach ([$header, $second - 1, $second, $second + $piece + 5, strlen($sealed) - 1] as $at) {
            $done["a bit at $at"] = self::with($sealed, $at, chr(ord($sealed[$at]) ^ 4));
            $done["cut at $at"] = substr($sealed, 0, $at);
        }
        foreach ($done as $what => $with) {
            file_put_contents($file, $with);
            self::assertFalse($store->isIntact($sha256, 200_000), $what);
            try {
                $read = stream_get_contents($store->read($sha256));
                self::fail("$what: ".strlen((string) $read).' bytes were given as if they were whole.');
            } catch (StoreFailure $failure) {
                self::assertSame(StoreFault::Damaged, $failure->fault, $what);
            }
            self::assertSame($sha256, $store->put([$bytes])->sha256);
            self::assertSame($bytes, $store->text($sha256), "$what: storing it again mends it");
        }
    }

    private static function with(string $bytes, int $at, string $byte): string
    {
        $bytes[$at] = $byte;

        return $bytes;
    }

    public function test_a_stream_is_read_wound_back_and_read_from_further_on(): void
    {
        $store = TestStore::in($this->directory());
        $bytes = random_bytes(300_000);
        $stream = $store->read($store->put([$bytes])->sha256);
        self::assertSame(substr($bytes, 0, 1_000), fread($stream, 1_000));
        self::assertSame(0, fseek($stream, 250_000));
        self::assertSame(substr($bytes, 250_000), stream_get_contents($stream));
        self::assertTrue(rewind($stream));
        self::assertSame(0, ftell($stream));
        self::assertSame($bytes, stream_get_contents($stream));
        self::assertTrue(feof($stream));
    }

    public function test_what_is_written_to_a_sink_and_then_given_up_leaves_nothing(): void
    {
        $directory = $this->directory();
        $incoming = TestStore::in($directory)->incoming();
        fwrite($incoming->sink(), str_repeat('x', 400_000));
        self::assertCount(1, glob("$directory/incoming/*") ?: []);
        $incoming->discard();
        self::assertSame([], glob("$directory/incoming/*"));
    }

    public function test_after_a_rotation_both_are_read_and_without_its_key_nothing_is_called_damaged(): void
    {
        $directory = $this->directory();
        $keys = ContentKeys::generate();
        $old = (new StoreSettings($directory, $keys))->open()->put(['before'])->sha256;
        $rotated = $keys->rotated();
        $store = (new StoreSettings($directory, $rotated))->open();
        $new = $store->put(['after'])->sha256;
        self::assertSame(['before', 'after'], [$store->text($old), $store->text($new)]);
        $sealed = (string) file_get_contents(TestStore::file($directory, $new));
        self::assertStringContainsString($rotated->current, $sealed);
        $lost = (new StoreSettings($directory, $rotated->without($keys->current)))->open();
        self::assertSame('after', $lost->text($new));
        $this->expectExceptionObject(StoreFailure::keyMissing($keys->current));
        $lost->isIntact($old, 6);
    }

    public function test_a_key_file_is_whole_or_none_and_shows_itself_to_nobody(): void
    {
        $file = $this->directory().'/keys/contents.json';
        $keys = ContentKeys::generate()->rotated();
        $keys->write($file);
        self::assertSame(0600, fileperms($file) & 0777);
        $key = $keys->reveal()['keys'][$keys->current];
        self::assertSame($keys->reveal(), ContentKeys::read($file)->reveal());
        self::assertStringNotContainsString($key, print_r($keys, true).var_export(ContentKeys::read($file), true));
        self::assertSame($keys->current, $keys->without($keys->current)->current, 'the one in use stays');
        file_put_contents($file, substr((string) file_get_contents($file), 0, 90));
        $this->expectExceptionObject(StoreFailure::noKeyFile($file));
        ContentKeys::read($file);
    }

    public function test_memory_stays_flat_however_large_the_contents_are(): void
    {
        $store = TestStore::in($this->directory());
        $before = memory_get_peak_usage();
        $content = $store->put((static function (): \Generator {
            for ($piece = 0; $piece < 600; $piece++) {
                yield str_repeat(chr($piece % 256), 200_000);
            }
        })());
        self::assertTrue($store->isIntact($content->sha256, 120_000_000));
        self::assertLessThan(24_000_000, memory_get_peak_usage() - $before);
    }
}
