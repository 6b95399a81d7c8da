<?php

declare(strict_types=1);

namespace Tests\App;

use App\Hosting\Connections;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Watch\Sweep;
use App\Watch\SweepAccount;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\Locks;
use Illuminate\Support\Facades\DB;
use Tests\Support\Builder\AccountBuilder;

/** The sweep looks at what is due, gently, and Today tells what changed. */
final class SweepTest extends AppTestCase
{
    public function test_only_what_is_due_and_may_be_tried_is_put_in_line_host_by_host(): void
    {
        config(['queue.default' => 'database']);
        $this->account->update(['tried_at' => now()]);
        foreach (
            [
                ['a', 'one.example', 9, null],
                ['b', 'one.example', 8, 'unreachable'],
                ['c', 'two.example', 7, null],
                ['d', 'two.example', 9, 'sign_in_refused'],
                ['e', 'two.example', 1, null],
            ] as [$login, $host, $hours, $trouble]
        ) {
            AccountBuilder::anAccount()
                ->of($this->account->client)
                ->at($host)
                ->as($login)
                ->with(['tried_at' => now()->subHours($hours), 'trouble' => $trouble])
                ->build();
        }
        self::assertSame(3, app(Sweep::class)->start());
        $hosts = DB::table('jobs')
            ->where('queue', 'sweep')
            ->orderBy('id')
            ->pluck('host')
            ->all();
        self::assertSame(['one.example', 'two.example', 'one.example'], $hosts);
        self::assertSame(0, app(Sweep::class)->start(), 'nothing more while some are in line');
        DB::table('jobs')->update(['reserved_at' => now()->getTimestamp()]);
        self::assertSame(0, app(Sweep::class)->start(), 'nor while one is being looked at');
        $this->travel(20)->minutes();
        self::assertSame(3, app(Sweep::class)->start(), 'what a killed worker held does not stop the sweep for ever');
    }

    public function test_what_changed_is_told_once_and_a_host_is_visited_by_one_at_a_time(): void
    {
        $this->artisanJson('connect', 'site.example');
        $sweep = fn () => app(SweepAccount::class)->carryOut($this->account->id);
        $sweep();
        $found = static fn (): array => RecordEntry::where('action', RecordKind::FoundChanged)
            ->orderBy('id')
            ->pluck('sentence')
            ->all();
        self::assertSame([], $found());
        $this->host->faults(['refuse' => true]);
        $sweep();
        $sweep();
        self::assertCount(1, $found());
        self::assertStringContainsString('no longer connects', $found()[0]);
        $this->actingAs($this->person)->get('/')->assertSee('Changed since yesterday')->assertSee('no longer connects');
        $this->host->faults([]);
        unlink($this->root().'/default.htm');
        $sweep();
        file_put_contents($this->root().'/default.htm', '<p>This web space has been set up by Harbourhost.</p>');
        $sweep();
        self::assertSame(
            ["{$this->account->host} connects again", "site.example shows its host's placeholder page again"],
            array_slice($found(), 1),
        );
        self::assertSame(
            1,
            RecordEntry::where('action', RecordKind::AccountConnected)->count(),
            'the sweep keeps quiet otherwise',
        );

        $user = $this->ftpUser();
        $sweep();
        self::assertSame(1, $user->proofs()->where('name', 'landing')->count(), 'proven a moment ago');
        $this->travel(7)->hours();
        $this->host->faults(['no_jail' => true]);
        $sweep();
        self::assertFalse($user->refresh()->isProven());
        $this->get('/')->assertSee('Reach no longer as proven');

        $tried = $this->account->refresh()->tried_at;
        $lock = app(Locks::class)->acquire('sweep-'.substr(hash('sha256', $this->account->host), 0, 24));
        self::assertSame(3, $sweep(), 'it comes back later, after so many seconds');
        self::assertEquals($tried, $this->account->refresh()->tried_at);
        $lock?->release();
    }

    public function test_connections_are_kept_used_again_limited_for_the_host_and_closed_after_idling(): void
    {
        config(['cellarium.host_connections' => 2, 'cellarium.idle_seconds' => 0]);
        (new \App\Providers\CellariumServiceProvider($this->app))->register();
        $this->app->forgetInstance(Connections::class);
        $connections = app(Connections::class);
        $remote = $connections->remote($this->account);
        $remote->list(RemotePath::root());
        self::assertSame($remote, $connections->remote($this->account), 'the same connection again');
        $second = $connections->slots->take($this->account->host, 0);
        self::assertNotNull($second);
        self::assertNull($connections->slots->take($this->account->host, 0.01), 'two and no more');
        self::assertNotNull($connections->slots->take('elsewhere.example', 0), 'another host is another matter');
        $connections->pool->tend();
        self::assertNotNull($connections->slots->take($this->account->host, 0), 'idle ones are closed');
        self::assertNotSame($remote, $connections->remote($this->account));
    }
}
