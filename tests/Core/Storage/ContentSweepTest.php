<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\FileContentStore;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** What nothing refers to goes, and nothing else does. */
final class ContentSweepTest extends TestCase
{
    use Scratch;

    public function test_what_is_referred_to_or_new_stays_and_the_rest_goes(): void
    {
        $directory = $this->directory();
        $store = new FileContentStore($directory);
        $kept = [];
        for ($number = 0; $number < 200; $number++) {
            $content = $store->put(["bytes $number"]);
            touch($store->file($content->sha256), 1_700_000_000);
            $number % 3 === 0 ?: $kept[] = $content->sha256;
        }
        $new = $store->put(['on its way in'])->sha256;
        $again = $store->put(['bytes 3'])->sha256;
        shuffle($kept);
        [$files, $bytes] = (new ContentSweep($directory))->remove((static function () use ($kept): \Generator {
            yield from $kept;
            yield from array_slice($kept, 0, 50);
            yield str_repeat('0', 64);
        })(), time() - 60);
        self::assertSame(66, $files, 'a third, but for the one that was found again');
        self::assertGreaterThan(400, $bytes);
        foreach ([...$kept, $new, $again] as $sha256) {
            self::assertTrue($store->has($sha256));
        }
        self::assertFalse($store->has(hash('sha256', 'bytes 6')));
    }
}
