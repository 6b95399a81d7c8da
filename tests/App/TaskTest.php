<?php

declare(strict_types=1);

namespace Tests\App;

use App\Errands\ErrandTask;
use App\FtpUsers\CarryOutBulk;
use App\Models\BulkChange;
use App\Models\BulkChangeState;
use App\Models\BulkKind;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Watch\Recovery;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use App\Work\Task;
use App\Work\TaskName;
use App\Work\Tasks;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Exceptions;
use Illuminate\Support\Facades\Queue;
use Symfony\Component\Finder\Finder;

/** Work is kept under its name, found by it, and taken up by whoever says how; what waited before goes on waiting. */
final class TaskTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    public function test_each_task_is_found_by_its_name_and_none_where_two_have_one(): void
    {
        $tasks = self::implementing(Task::class);
        self::assertGreaterThan(35, count($tasks));
        foreach ($tasks as $task) {
            self::assertSame($task, TaskName::find(TaskName::forTask($task)));
            // Of a row that is gone, none says more than how urgent it is.
            self::assertNull($task::claim(0)?->host);
        }
        $titles = array_map(
            static fn (string $task): string => $task::title(),
            array_filter($tasks, static fn (string $task): bool => is_a($task, ErrandTask::class, true)),
        );
        self::assertSame($titles, array_unique($titles));
        $this->expectExceptionMessage('Not one task is called "../find_root".');
        TaskName::find('../find_root');
    }

    public function test_whatever_says_how_it_is_taken_up_is_asked(): void
    {
        foreach ([RecoversOrphans::class, RecoversForgotten::class] as $contract) {
            // Tests register what there is once more.
            $asked = array_unique(array_map(get_class(...), [...app()->tagged($contract)]));
            sort($asked);
            self::assertSame(self::implementing($contract), $asked);
        }
    }

    public function test_what_cannot_be_taken_up_keeps_nothing_else_from_it(): void
    {
        Queue::fake();
        Exceptions::fake();
        Errand::create([
            'kind' => 'no_such_task',
            'state' => ErrandState::Waiting,
            'back' => '/',
            'given' => [],
        ]);
        $bulk = BulkChange::create(['kind' => BulkKind::Close, 'state' => BulkChangeState::Going, 'items' => []]);
        $this->travel(2)->minutes();
        app(Recovery::class)->takeUp();
        self::assertOrdered(CarryOutBulk::class, $bulk->id);
        Exceptions::assertReported(\LogicException::class);
    }

    public function test_what_waited_as_an_object_of_a_class_goes_on_waiting_by_its_name(): void
    {
        config(['queue.default' => 'database']);
        $old = static fn (string $class, string $properties, ?string $host, string $queue): array => [
            'queue' => $queue,
            'host' => $host,
            'payload' => json_encode([
                'job' => 'Illuminate\Queue\CallQueuedHandler@call',
                'data' => [
                    'commandName' => $class,
                    'command' => sprintf('O:%d:"%s":%s', strlen($class), $class, $properties),
                ],
            ], JSON_THROW_ON_ERROR),
            'attempts' => 0,
            'available_at' => time() - 1,
            'created_at' => time() - 1,
        ];
        $errand = DB::table('errands')->insertGetId([
            'kind' => 'find_root',
            'state' => 'waiting',
            'back' => '/',
            'given' => '',
        ]);
        DB::table('jobs')->insert([
            $old('App\Errands\RunErrand', "2:{s:7:\"timeout\";i:0;s:6:\"errand\";i:$errand;}", 'a.example', 'errands'),
            $old('App\Deployments\MakePlan', '1:{s:10:"deployment";i:7;}', 'b.example', 'looks'),
            $old('App\Watch\ClearStore', '2:{s:6:"person";i:3;s:7:"empties";b:1;}', null, 'sweep'),
            $old('App\Watch\KeepUp', '1:{s:4:"user";i:3;}', 'c.example', 'closing'),
            $old('App\Gone\Entirely', '0:{}', null, 'default'),
        ]);
        DB::statement('ALTER TABLE jobs DROP COLUMN turn');
        (require database_path('migrations/2026_12_03_100000_order_tasks_by_name.php'))->up();
        $left = DB::table('jobs')->orderBy('id')->get()->map(static function (object $job): array {
            $payload = json_decode($job->payload, true);

            return [$payload['job'], $payload['data']['task'], $payload['data']['row'], $job->host, $job->queue];
        });
        // FTP users that are due are ordered every minute.
        self::assertSame([
            ['App\Work\RunTask', 'find_root', $errand, 'a.example', 'errands'],
            ['App\Work\RunTask', 'make_plan', 7, 'b.example', 'looks'],
            ['App\Work\RunTask', 'empty_store_aside', 3, null, 'sweep'],
        ], $left->all());
        DB::table('jobs')->delete();
        Tasks::order(TaskName::find('make_plan'), 7);
        $new = json_decode((string) DB::table('jobs')->value('payload'), true);
        self::assertSame(1, $new['data']['v'], 'the version that the migration wrote');
        self::assertSame(['v', 'task', 'row', 'person', 'host', 'turn'], array_keys($new['data']));
    }

    /**
     * @template T of object
     *
     * @param  class-string<T>  $contract
     * @return list<class-string<T>>
     */
    private static function implementing(string $contract): array
    {
        $found = [];
        foreach ((new Finder)->in(app_path())->depth(1)->name('*.php') as $file) {
            $class = 'App\\'.str_replace(['/', '.php'], ['\\', ''], $file->getRelativePathname());
            if (is_a($class, $contract, true) && ! (new \ReflectionClass($class))->isAbstract()) {
                $found[] = $class;
            }
        }
        sort($found);

        return $found;
    }
}
