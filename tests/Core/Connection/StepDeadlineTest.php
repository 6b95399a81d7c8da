<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\StepDeadline;
use phpseclib3\Exception\TimeoutException;
use PHPUnit\Framework\TestCase;

/** Silent, slow, without end: each ends a step; none of them what merely takes its time. */
final class StepDeadlineTest extends TestCase
{
    public function test_silence_ends_it(): void
    {
        $step = $this->step();
        $step->waited(29);
        self::assertEqualsWithDelta(1.0, $step->left(), 0.01);
        $step->waited(1);
        $this->expectExceptionObject(new TimeoutException('no answer within 30 seconds'));
        $step->left();
    }

    public function test_a_trickle_ends_it_though_it_is_never_silent(): void
    {
        $step = $this->step();
        $this->expectExceptionObject(new TimeoutException('60 bytes in 60 seconds'));
        for ($second = 0; $second < 600; $second++) {
            $step->waited(1);
            $step->moved(1);
            $step->left();
        }
    }

    public function test_what_goes_on_slowly_but_surely_is_let_be(): void
    {
        $step = $this->step(null);
        for ($second = 0; $second < 3600; $second++) {
            $step->waited(1);
            $step->moved(100);
            $step->left();
        }
        $this->addToAssertionCount(1);
    }

    public function test_a_step_has_an_end_in_all_that_grows_with_what_it_moves(): void
    {
        $small = $this->step(0);
        $large = $this->step(8_000_000);
        for ($second = 0; $second < 299; $second++) {
            foreach ([$small, $large] as $step) {
                $step->waited(1);
                $step->moved(1000);
                $step->left();
            }
        }
        $large->waited(1);
        $large->moved(1000);
        $large->left();
        $small->waited(1);
        $small->moved(1000);
        $this->expectExceptionObject(new TimeoutException('not at its end after 300 seconds'));
        $small->left();
    }

    public function test_the_next_step_begins_anew(): void
    {
        $step = $this->step();
        $step->waited(3600);
        $step->begin(0);
        self::assertGreaterThan(0, $step->left());
    }

    private function step(?int $most = 0): StepDeadline
    {
        $step = new StepDeadline(new ConnectionSettings);
        $step->begin($most);

        return $step;
    }
}
