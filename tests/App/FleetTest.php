<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Account;
use App\Models\FtpUser;
use App\Models\Site;
use Database\Seeders\FleetSeeder;
use Illuminate\Console\Scheduling\Event;
use Illuminate\Console\Scheduling\Schedule;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

/** With a thousand accounts the pages ask the database no more than with ten, and draw only a part. */
final class FleetTest extends AppTestCase
{
    private const MOST_QUERIES = 22;

    /** What a page may read of the database, in rows and index entries, beside seventy thousand backups. */
    private const MOST_ROWS = 20_000;

    private static function rowsRead(): int
    {
        return array_sum(
            array_map(
                static fn (\stdClass $row): int => (int) $row->Value,
                DB::select("SHOW SESSION STATUS LIKE 'Handler_read%'"),
            ),
        );
    }

    /** Those of the scheduler, as it runs them, and those that look at all that is there. */
    public function test_every_command_is_run(): void
    {
        (new FleetSeeder(20, smaller: 20))->run();
        Artisan::call('cellarium:self-backup --new-passphrase');
        config(['queue.default' => 'database']); // What is begun would ask hosts that do not exist.
        $scheduled = array_map(
            static fn (Event $event): string => (string) preg_replace("/^.*'artisan' |^.*artisan "
                .'/', '', (string) $event->command),
            $this->app->make(Schedule::class)->events(),
        );
        self::assertContains('cellarium:clean', $scheduled);
        $others = ['cellarium:accounts', 'cellarium:reach', 'cellarium:store', 'cellarium:record --verify',
            'cellarium:witnesses', 'cellarium:users 1'];
        foreach ([...$scheduled, ...$others] as $command) {
            $status = Artisan::call($command);
            self::assertSame(0, $status, "$command: ".Artisan::output());
        }
    }

    public function test_no_page_asks_more_or_draws_all(): void
    {
        (new FleetSeeder)->run();
        self::assertGreaterThanOrEqual(1000, Account::count());
        self::assertGreaterThanOrEqual(3000, Site::count());
        self::assertGreaterThanOrEqual(5000, FtpUser::count());
        $this->actingAs($this->person);
        foreach (
            [
                '/',
                '/?as=table',
                '/shelves?from=48',
                '/accounts',
                '/accounts?q=heron&sort=site',
                '/accounts?only=unreached&sort=connection&page=2',
                '/find?q=heron',
                '/find?q=',
                '/reach',
                '/reach?only=idle&page=2',
                '/reach?q=heron',
                '/ftp-users',
                '/ftp-users?only=idle&q=bakery',
                '/deployments',
                '/deployments/new',
                '/choose/sites?q=heron',
                '/choose/packages?q=heron',
                '/backups',
                '/backups/sites',
                '/record',
                '/packages',
            ] as $address
        ) {
            $before = self::rowsRead();
            $queries = 0;
            DB::listen(static function () use (&$queries): void {
                $queries++;
            });
            $page = $this->get($address)->assertOk();
            DB::getEventDispatcher()->forget(\Illuminate\Database\Events\QueryExecuted::class);
            $read = self::rowsRead() - $before;
            self::assertLessThanOrEqual(self::MOST_QUERIES, $queries, $address);
            self::assertLessThanOrEqual(self::MOST_ROWS, $read, "$address reads $read rows");
            self::assertLessThan(400_000, strlen((string) $page->getContent()), $address);
        }
        $today = $this->get('/')
            ->assertSee('Show all')
            ->assertSee('Back up all')
            ->assertSee('accounts do not connect, all alike')
            ->assertSee('More shelves');
        self::assertLessThan(150, substr_count((string) $today->getContent(), 'class="jar '));
        self::assertGreaterThan(
            8,
            substr_count((string) $this->get('/?kind=no_backup')->getContent(), 'class="sheet concern"'),
        );
    }
}
