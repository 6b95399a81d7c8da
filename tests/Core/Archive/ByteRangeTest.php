<?php

declare(strict_types=1);

namespace Tests\Core\Archive;

use Cellarium\Core\Archive\ByteRange;
use Cellarium\Core\Archive\RangeSent;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** One range of bytes, as RFC 9110 has it. */
final class ByteRangeTest extends TestCase
{
    private const WHOLE = 'low water at noon';

    /** @return iterable<string, array{string, string, string|null}> Range, If-Range, and what is sent; null for all */
    public static function ranges(): iterable
    {
        yield 'none' => ['', '', null];
        yield 'from a byte on' => ['bytes=4-', '', 'water at noon'];
        yield 'some in the middle' => ['bytes=4-8', '', 'water'];
        yield 'the last ones' => ['bytes=-4', '', 'noon'];
        yield 'more than there is' => ['bytes=10-999', '', 'at noon'];
        yield 'more of the last than there is' => ['bytes=-999', '', self::WHOLE];
        yield 'one byte' => ['bytes=0-0', '', 'l'];
        yield 'the same as before' => ['bytes=4-8', '"tag"', 'water'];
        yield 'another by now' => ['bytes=4-8', '"other"', null];
        yield 'several' => ['bytes=0-1,4-5', '', null];
        yield 'of another unit' => ['lines=1-2', '', null];
        yield 'the wrong way round' => ['bytes=8-4', '', null];
        yield 'nonsense' => ['bytes=-', '', null];
    }

    #[DataProvider('ranges')]
    public function test_what_is_asked_for_is_sent(string $asked, string $if, ?string $sent): void
    {
        $range = ByteRange::asked($asked, $if, '"tag"', strlen(self::WHOLE));
        self::assertSame($sent === null, $range === null);
        foreach ($range === null ? [] : [1, 3, 100] as $size) {
            $got = '';
            $through = $range->through(static function (string $piece) use (&$got): void {
                $got .= $piece;
            });
            try {
                array_map($through, str_split(self::WHOLE, $size));
                self::fail('It did not say when it had all.');
            } catch (RangeSent) {
                self::assertSame($sent, $got, "in pieces of $size");
                self::assertSame(strlen($got), $range->bytes());
            }
        }
    }

    public function test_what_begins_behind_the_end_cannot_be_had(): void
    {
        $this->expectException(\OutOfRangeException::class);
        ByteRange::asked('bytes=17-', '', '"tag"', strlen(self::WHOLE));
    }
}
