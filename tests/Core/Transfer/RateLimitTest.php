<?php

declare(strict_types=1);

namespace Tests\Core\Transfer;

use Cellarium\Core\Transfer\RateLimit;
use PHPUnit\Framework\TestCase;

final class RateLimitTest extends TestCase
{
    public function test_a_connection_waits_until_its_bytes_are_due(): void
    {
        $limit = new RateLimit(1000);
        self::assertSame(0.0, $limit->wait(0.0, 0));
        self::assertSame(2.0, $limit->wait(0.0, 2000));
        self::assertSame(1.0, $limit->wait(2.0, 3000));
    }

    public function test_the_next_transfer_goes_on_where_the_last_one_was(): void
    {
        $limit = new RateLimit(1000);
        $limit->wait(0.0, 1500);
        self::assertSame(1.6, round($limit->wait(0.0, 100), 6));
    }

    public function test_an_idle_minute_is_not_made_up_for(): void
    {
        $limit = new RateLimit(1000);
        $limit->wait(0.0, 1000);
        $limit->wait(60.0, 1000);
        self::assertSame(1.0, round($limit->wait(60.0, 3000), 6));
    }
}
