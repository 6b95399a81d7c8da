<?php

declare(strict_types=1);

namespace Tests\Core\Transfer;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Transfer\Retries;
use PHPUnit\Framework\TestCase;

final class RetriesTest extends TestCase
{
    public function test_what_is_transient_is_tried_three_times_and_what_is_not_once(): void
    {
        $retries = new Retries(0.0);
        $again = static fn (FailureReason $reason): array => array_map(
            static fn (int $tries): bool => $retries->mayTryAgain($reason, $tries, 1.0),
            [1, 2, 3],
        );
        self::assertSame([true, true, false], $again(FailureReason::Disconnected));
        self::assertSame([false, false, false], $again(FailureReason::Forbidden));
    }

    public function test_a_server_that_fell_silent_is_given_up_and_what_follows_ends_with_its_first_try(): void
    {
        $retries = new Retries(0.0);
        $retries->begin(1000.0);
        self::assertTrue($retries->mayTryAgain(FailureReason::TimedOut, 1, 1030.0), 'nobody was asked');
        self::assertFalse($retries->mayTryAgain(FailureReason::TimedOut, 2, 1060.5));
        $retries->begin(1061.0);
        self::assertFalse($retries->mayTryAgain(FailureReason::TimedOut, 1, 1091.0), 'putting back');
        $retries->heard(1100.0);
        self::assertTrue($retries->mayTryAgain(FailureReason::TimedOut, 1, 1130.0), 'it speaks again');
    }
}
