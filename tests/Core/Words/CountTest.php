<?php

declare(strict_types=1);

namespace Tests\Core\Words;

use Cellarium\Core\Words\Bytes;
use Cellarium\Core\Words\Count;
use PHPUnit\Framework\TestCase;

/** Numbers and sizes in sentences. */
final class CountTest extends TestCase
{
    public function test_one_is_one_and_none_is_many(): void
    {
        self::assertSame(['0 files', '1 file', '2 files', '1,204 files'], array_map(
            static fn (int $count): string => Count::words($count, 'file'),
            [0, 1, 2, 1204],
        ));
        self::assertSame('2 directories', Count::words(2, 'directory', 'directories'));
        self::assertSame(['are', 'is'], [Count::choose(0, 'is', 'are'), Count::choose(1, 'is', 'are')]);
    }

    public function test_sizes_are_decimal_and_have_no_zeros_behind(): void
    {
        self::assertSame(['0 B', '999 B', '1 KB', '29.3 KB', '1 MB', '4 GB', '1.25 GB'], array_map(
            Bytes::words(...),
            [0, 999, 1000, 29_300, 1_000_000, 4_000_000_000, 1_250_000_000],
        ));
    }
}
