<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\ConnectAccount;
use App\Errands\RunErrand;
use App\Models\Account;
use App\Models\Closing;
use App\Models\Errand;
use App\Models\ErrandKind;
use App\Models\ErrandState;
use App\Models\FtpUserState;
use App\Queue\FairQueue;
use App\Queue\ForHost;
use App\Queue\Wake;
use App\Queue\Wakes;
use App\Watch\Recovery;
use App\Watch\Upkeep;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Work\FairShare;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Finder\Finder;

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
            RunErrand::order($this->errandAt('hangs-'.($number % 10).'.example'));
        }
        $queue = $this->queue();
        $hosts = [];
        while (($job = $queue->pop(FairQueue::ANY)) !== null) {
            $hosts[] = $job->payload()['host'];
        }
        sort($hosts);
        self::assertSame(array_map(static fn (int $number): string => "hangs-$number.example", range(0, 9)), $hosts);
        ConnectAccount::dispatch($this->account->id);
        self::assertSame(ConnectAccount::class, $queue->pop(FairQueue::ANY)?->resolveName());
    }

    public function test_the_worker_for_closing_takes_nothing_else_and_the_host_with_the_fewest_first(): void
    {
        RunErrand::order($this->errandAt('a.example'));
        RunErrand::order($this->errandAt('b.example', ErrandKind::CloseUser));
        $queue = $this->queue();
        self::assertSame('b.example', $queue->pop('closing')?->payload()['host']);
        RunErrand::order($this->errandAt('b.example', ErrandKind::CloseUser));
        RunErrand::order($this->errandAt('c.example', ErrandKind::CloseUser));
        self::assertSame('c.example', $queue->pop('closing')?->payload()['host']);
        self::assertSame('b.example', $queue->pop('closing')?->payload()['host']);
        self::assertNull($queue->pop('closing'));
        self::assertSame('a.example', $queue->pop(FairQueue::ANY)?->payload()['host']);
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
            array_map(static fn (): ?string => $queue->pop('closing')?->payload()['host'], range(1, 3)),
        );
    }

    public function test_what_a_killed_worker_had_in_hand_is_let_go_of_and_what_a_living_one_has_is_not(): void
    {
        RunErrand::order($this->errandAt('a.example'));
        RunErrand::order($this->errandAt('b.example'));
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
        RunErrand::order($this->errandAt('a.example'));
        RunErrand::order($this->errandAt('b.example'));
        self::assertSame('a.example', $this->queue()->pop(FairQueue::ANY)?->payload()['host']);
        self::assertSame('b.example', $this->queue()->pop(FairQueue::ANY)?->payload()['host']);
        self::assertSame(1, DB::table('jobs')->count());
    }

    public function test_work_wakes_one_that_waits_for_such_work(): void
    {
        $wakes = new Wakes($this->var().'/run');
        $orders = $this->queue();
        $orders->push(new ConnectAccount($this->account->id));
        self::assertTrue(self::isWoken($wakes->of(FairQueue::ANY)));
        self::assertFalse(self::isWoken($wakes->of('closing')), 'what is no closing wakes no worker for that');
        $orders->push(new RunErrand($this->errandAt('a.example', ErrandKind::CloseUser)->id), '', 'closing');
        self::assertTrue(self::isWoken($wakes->of('closing')));
        self::assertTrue(self::isWoken($wakes->of(FairQueue::ANY)), 'and another, where that one is busy');
    }

    /** Whether it is long before it would look by itself. */
    private static function isWoken(Wake $wake): bool
    {
        $before = hrtime(true);
        $wake->await(3.0, 0.0);

        return hrtime(true) - $before < 3e9;
    }

    public function test_each_job_that_asks_one_host_says_which(): void
    {
        $without = [];
        foreach ((new Finder)->in(app_path())->name('*.php')->contains('/implements .*ShouldQueue/') as $file) {
            $class = 'App\\'.str_replace(['/', '.php'], ['\\', ''], $file->getRelativePathname());
            self::assertTrue(is_a($class, ShouldQueue::class, true));
            is_a($class, ForHost::class, true) || $without[] = class_basename($class);
        }
        sort($without);
        // Many FTP users of many hosts; the store.
        self::assertSame(['CarryOutBulk', 'ClearStore'], $without);
    }

    private function queue(): FairQueue
    {
        $queue = new FairQueue(
            DB::connection(),
            'jobs',
            'default',
            new FairShare(13),
            app(Locks::class),
            new Wakes($this->var().'/run'),
            null,
        );
        $queue->setContainer(app());
        $queue->setConnectionName('database');

        return $queue;
    }

    private function var(): string
    {
        return (string) config('cellarium.var');
    }

    private function errandAt(string $host, ErrandKind $kind = ErrandKind::LookAtFiles): Errand
    {
        $account = Account::where('host', $host)->first()
            ?? $this->account->replicate(['id', 'in_use'])->fill(['host' => $host]);
        $account->exists || $account->saveOrFail();

        return Errand::create([
            'kind' => $kind,
            'state' => ErrandState::Waiting,
            'account_id' => $account->id,
            'back' => '/',
            'given' => [],
        ]);
    }
}
