<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\ConnectAccount;
use App\Errands\ErrandTask;
use App\Files\LookAtFiles;
use App\FtpUsers\CloseUser;
use App\Models\Account;
use App\Models\Closing;
use App\Models\DeploymentState;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\FtpUserState;
use App\Plans\DeploymentRequest;
use App\Plans\Plans;
use App\Runs\CarryOutDeployment;
use App\Watch\Recovery;
use App\Watch\Upkeep;
use App\Work\FairQueue;
use App\Work\TaskName;
use App\Work\Tasks;
use App\Work\Wake;
use App\Work\Wakes;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Work\FairShare;
use Illuminate\Support\Facades\DB;

/** Hosts that hang keep their share of the workers and no more; what a killed worker had in hand is in nobody's. */
final class FairQueueTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    protected function setUp(): void
    {
        parent::setUp();
        config(['queue.default' => 'database']);
    }

    public function test_sixty_errands_at_ten_hosts_leave_a_worker_for_another(): void
    {
        for ($number = 0; $number < 60; $number++) {
            self::order($this->errandAt('hangs-'.($number % 10).'.example'));
        }
        $queue = $this->queue();
        $hosts = [];
        while (($job = $queue->pop(FairQueue::ANY)) !== null) {
            $hosts[] = $job->payload()['data']['host'];
        }
        sort($hosts);
        self::assertSame(array_map(static fn (int $number): string => "hangs-$number.example", range(0, 9)), $hosts);
        Tasks::order(ConnectAccount::class, $this->account->id);
        self::assertSame('connect_account', $queue->pop(FairQueue::ANY)?->payload()['data']['task']);
    }

    public function test_the_worker_for_closing_takes_nothing_else_and_the_host_with_the_fewest_first(): void
    {
        self::order($this->errandAt('a.example'));
        self::order($this->errandAt('b.example', CloseUser::class));
        $queue = $this->queue();
        self::assertSame('b.example', $queue->pop('closing')?->payload()['data']['host']);
        self::order($this->errandAt('b.example', CloseUser::class));
        self::order($this->errandAt('c.example', CloseUser::class));
        self::assertSame('c.example', $queue->pop('closing')?->payload()['data']['host']);
        self::assertSame('b.example', $queue->pop('closing')?->payload()['data']['host']);
        self::assertNull($queue->pop('closing'));
        self::assertSame('a.example', $queue->pop(FairQueue::ANY)?->payload()['data']['host']);
    }

    public function test_closing_at_its_time_is_ordered_for_each_user_and_waits_for_no_other_host(): void
    {
        foreach (['hangs.example', 'hangs.example', 'answers.example'] as $number => $host) {
            $this->errandAt($host)->account->ftpUsers()->create([
                'login' => "u$number",
                'directory' => '/',
                'state' => FtpUserState::Open,
                'ends' => Closing::AtTime,
                'closes_at' => now()->subMinute(),
            ]);
        }
        app(Upkeep::class)->order();
        $queue = $this->queue();
        self::assertSame(
            ['hangs.example', 'answers.example', 'hangs.example'],
            array_map(static fn (): ?string => $queue->pop('closing')?->payload()['data']['host'], range(1, 3)),
        );
    }

    public function test_what_a_killed_worker_had_in_hand_is_let_go_of_and_what_a_living_one_has_is_not(): void
    {
        self::order($this->errandAt('a.example'));
        self::order($this->errandAt('b.example'));
        $queue = $this->queue();
        $mine = $queue->pop(FairQueue::ANY);
        self::assertNotNull($mine);
        self::assertNotNull($this->queue()->pop(FairQueue::ANY));
        // The second queue is gone by now, and with it the lock that it held.
        app(Recovery::class)->takeUp();
        self::assertSame([$mine->getJobId()], DB::table('jobs')->whereNotNull('reserved_at')->pluck('id')->all());
    }

    public function test_whoever_follows_a_killed_worker_lets_go_of_what_that_had(): void
    {
        self::order($this->errandAt('a.example'));
        self::order($this->errandAt('b.example'));
        self::assertSame('a.example', $this->queue()->pop(FairQueue::ANY)?->payload()['data']['host']);
        self::assertSame('b.example', $this->queue()->pop(FairQueue::ANY)?->payload()['data']['host']);
        self::assertSame(1, DB::table('jobs')->count());
    }

    public function test_work_wakes_one_that_waits_for_such_work(): void
    {
        $wakes = new Wakes($this->var().'/run');
        $orders = $this->queue();
        Tasks::order(ConnectAccount::class, $this->account->id);
        self::assertTrue(self::isWoken($wakes->of(FairQueue::ANY)));
        self::assertFalse(self::isWoken($wakes->of('closing')), 'what is no closing wakes no worker for that');
        self::order($this->errandAt('a.example', CloseUser::class));
        self::assertTrue(self::isWoken($wakes->of('closing')));
        self::assertTrue(self::isWoken($wakes->of(FairQueue::ANY)), 'and another, where that one is busy');
    }

    public function test_one_that_waits_keeps_watch_for_all_and_hands_it_over_when_it_has_work(): void
    {
        $wakes = new Wakes($this->var().'/run');
        $keepsWatch = static function (): bool {
            $lock = app(Locks::class)->acquire('watch-any');
            $lock?->release();

            return $lock === null;
        };
        $queue = $this->queue(1);
        self::assertNull($queue->pop(FairQueue::ANY));
        self::assertFalse($keepsWatch(), 'it has only looked');
        $wakes->of(FairQueue::ANY)->one();
        self::assertNull($queue->pop(FairQueue::ANY));
        self::assertTrue($keepsWatch());
        self::order($this->errandAt('a.example'));
        self::assertNotNull($queue->pop(FairQueue::ANY));
        self::assertFalse($keepsWatch());
        self::assertTrue(self::isWoken($wakes->of(FairQueue::ANY)), 'another keeps it');
    }

    /** Whether it is long before it would look by itself. */
    private static function isWoken(Wake $wake): bool
    {
        $before = hrtime(true);
        $wake->await(3.0, 0.0);

        return hrtime(true) - $before < 3e9;
    }

    public function test_one_run_at_a_login_goes_on_at_a_time_and_nobody_asks_again_meanwhile(): void
    {
        $runs = [];
        foreach (range(1, 2) as $number) {
            $run = app(Plans::class)->orderDeploy(new DeploymentRequest($this->site, $this->package()));
            $run->update(['state' => DeploymentState::Queued]);
            Tasks::order(CarryOutDeployment::class, $run->id);
            $runs[] = $run->id;
        }
        $queue = $this->queue();
        $first = $queue->pop(FairQueue::ANY);
        self::assertSame($runs[0], $first?->payload()['data']['row']);
        self::assertNull($queue->pop(FairQueue::ANY), 'it is not begun, to find that another is at work');
        $first->delete();
        self::assertSame($runs[1], $queue->pop(FairQueue::ANY)?->payload()['data']['row']);
        unset($queue, $first);
        Tasks::order(CarryOutDeployment::class, $runs[0]);
        $after = $this->queue()->pop(FairQueue::ANY);
        self::assertSame($runs[0], $after?->payload()['data']['row'], 'what was killed keeps no turn');
    }

    private function queue(?int $number = null): FairQueue
    {
        $queue = new FairQueue(
            DB::connection(),
            'jobs',
            'default',
            new FairShare(13),
            app(Locks::class),
            new Wakes($this->var().'/run'),
            $number,
        );
        $queue->setContainer(app());
        $queue->setConnectionName('database');

        return $queue;
    }

    private static function order(Errand $errand): void
    {
        Tasks::order(ErrandTask::find($errand), $errand->id);
    }

    private function var(): string
    {
        return (string) config('cellarium.var');
    }

    private function errandAt(string $host, string $kind = LookAtFiles::class): Errand
    {
        $account = Account::where('host', $host)->first()
            ?? $this->account->replicate(['id', 'in_use'])->fill(['host' => $host]);
        $account->exists || $account->saveOrFail();

        return Errand::create([
            'kind' => TaskName::forTask($kind),
            'state' => ErrandState::Waiting,
            'account_id' => $account->id,
            'back' => '/',
            'given' => [],
        ]);
    }
}
