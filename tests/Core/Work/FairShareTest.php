<?php

declare(strict_types=1);

namespace Tests\Core\Work;

use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\FairShare;
use Cellarium\Core\Work\Urgency;
use Cellarium\Core\Work\WorkAtHost;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Hosts that never answer, and what everybody else still gets done. */
final class FairShareTest extends TestCase
{
    private int $last = 0;

    public function test_sixty_errands_at_ten_hosts_that_hang_leave_workers_for_another_accounts_plan(): void
    {
        $waiting = [];
        for ($number = 0; $number < 60; $number++) {
            $waiting[] = $this->work(Urgency::Errand, 'hangs-'.($number % 10).'.example');
        }
        $inHand = self::taken(12, $waiting);
        self::assertCount(10, $inHand, 'one at each host that hangs');
        $plan = $this->work(Urgency::Look, 'answers.example');
        self::assertSame($plan, (new FairShare(12))->next([...$waiting, $plan], $inHand));
    }

    /** @return iterable<string, array{int, int}> workers, and how many of them one host keeps alone */
    public static function sizes(): iterable
    {
        yield 'one worker' => [1, 1];
        yield 'two' => [2, 1];
        yield 'four' => [4, 2];
        yield 'twelve' => [12, 3];
        yield 'forty' => [40, 4];
    }

    #[DataProvider('sizes')]
    public function test_one_host_alone_never_keeps_more_than_its_share(int $workers, int $most): void
    {
        $waiting = [];
        for ($number = 0; $number < 60; $number++) {
            $waiting[] = $this->work(Urgency::Errand, 'hangs.example');
        }
        self::assertCount($most, self::taken($workers, $waiting));
    }

    public function test_closing_goes_before_what_came_earlier_and_the_oldest_of_the_most_urgent_next(): void
    {
        $sweep = $this->work(Urgency::Sweep, 'a.example');
        $plan = $this->work(Urgency::Look, 'b.example');
        $ordered = $this->work(Urgency::Ordered, 'c.example');
        $errand = $this->work(Urgency::Errand, 'd.example');
        $later = $this->work(Urgency::Errand, 'e.example');
        $closing = $this->work(Urgency::Closing, 'f.example');
        self::assertSame(
            [$closing, $errand, $later, $ordered, $plan, $sweep],
            self::taken(12, [$sweep, $plan, $ordered, $errand, $later, $closing]),
        );
    }

    public function test_among_equals_the_host_with_the_fewest_goes_first(): void
    {
        $inHand = [$this->work(Urgency::Errand, 'busy.example')];
        $waiting = [$this->work(Urgency::Errand, 'busy.example'), $this->work(Urgency::Errand, 'other.example')];
        self::assertSame($waiting[1], (new FairShare(12))->next($waiting, $inHand));
    }

    public function test_what_would_stand_in_each_others_way_goes_one_after_the_other_and_keeps_nobody_else(): void
    {
        $first = $this->work(Urgency::Ordered, 'a.example', 'a site');
        $next = $this->work(Urgency::Ordered, 'a.example', 'a site');
        $urgent = $this->work(Urgency::Errand, 'a.example', 'a site');
        $other = $this->work(Urgency::Ordered, 'b.example', 'another');
        self::assertSame([$other], self::taken(12, [$next, $urgent, $other], [$first]));
        self::assertNull(FairShare::first([$next], [$first]), 'nor does a worker take it that is kept for such work');
        self::assertSame([$urgent, $other], self::taken(12, [$next, $urgent, $other]), 'then the most urgent');
    }

    public function test_downloads_have_half_of_the_workers_and_no_more(): void
    {
        $waiting = [];
        for ($number = 0; $number < 40; $number++) {
            $waiting[] = $this->work(Urgency::Download, "$number.example");
        }
        $inHand = self::taken(12, $waiting);
        self::assertCount(6, $inHand);
        self::assertCount(1, self::taken(1, $waiting), 'and one where there is but one');
        $plan = $this->work(Urgency::Look, 'another.example');
        self::assertSame($plan, (new FairShare(12))->next([...$waiting, $plan], $inHand));
    }

    public function test_what_nobody_waits_for_has_a_quarter_of_the_workers_and_no_more(): void
    {
        $waiting = [];
        for ($number = 0; $number < 40; $number++) {
            $waiting[] = $this->work($number % 2 === 0 ? Urgency::Backup : Urgency::Sweep, "$number.example");
        }
        self::assertCount(3, self::taken(12, $waiting));
        self::assertCount(1, self::taken(1, $waiting), 'and one where there is but one');
    }

    public function test_work_that_asks_no_single_host_is_held_to_no_share(): void
    {
        $waiting = [];
        for ($number = 0; $number < 12; $number++) {
            $waiting[] = $this->work(Urgency::Ordered, null);
        }
        self::assertCount(12, self::taken(12, $waiting));
    }

    private function work(Urgency $urgency, ?string $host, ?string $turn = null): WorkAtHost
    {
        return new WorkAtHost(++$this->last, new Claim($urgency, $host, $turn));
    }

    /**
     * @param  list<WorkAtHost>  $waiting
     * @param  list<WorkAtHost>  $before  in hand already
     * @return list<WorkAtHost> what is begun, in this order, while nothing of it ends
     */
    private static function taken(int $workers, array $waiting, array $before = []): array
    {
        $inHand = $before;
        while (($next = (new FairShare($workers))->next($waiting, $inHand)) !== null) {
            $inHand[] = $next;
            $waiting = array_values(array_filter($waiting, static fn (WorkAtHost $work): bool => $work !== $next));
        }

        return array_slice($inHand, count($before));
    }
}
