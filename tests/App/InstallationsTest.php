<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\Witnesses;
use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Deployment;
use App\Models\FtpUser;
use App\Models\Package;
use App\Models\Person;
use App\Models\Sheet;
use App\Models\Site;
use App\Providers\CellariumServiceProvider;
use App\Storage\Installation;
use App\Storage\RunFiles;
use App\Storage\Schema;
use App\Storage\Stores;
use Carbon\CarbonImmutable;
use Cellarium\Core\Storage\Mark;
use Illuminate\Encryption\Encrypter;
use Illuminate\Foundation\Testing\RefreshDatabaseState;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema as Tables;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * Installations live for years: what each earlier version left, a database and a directory for data, is brought up, and
 * nothing of it is lost. tests/Installations holds one of each schema that was released.
 */
final class InstallationsTest extends AppTestCase
{
    private const FIXTURES = __DIR__.'/../Installations';

    protected function tearDown(): void
    {
        RefreshDatabaseState::$migrated = false;
        Tables::dropAllTables();
        parent::tearDown();
    }

    /** @return iterable<string, array{string}> */
    public static function installations(): iterable
    {
        foreach (glob(self::FIXTURES.'/*.tar.xz') ?: [] as $file) {
            yield basename($file, '.tar.xz') => [$file];
        }
    }

    #[DataProvider('installations')]
    public function test_nothing_is_lost(string $file): void
    {
        $key = $this->lay($file);
        // As on the day after its last: what is held for thirty days is held then, whenever this runs.
        $this->travelTo(CarbonImmutable::parse((string) DB::table('record_entries')->max('at'))->addDay());
        $counted = $this->counted();
        self::assertContains(Schema::state(), ['behind', 'current']);
        Artisan::call('migrate', ['--force' => true]);
        self::assertSame('current', Schema::state());
        self::assertSame($counted, array_intersect_key($this->counted(), $counted), 'no row is gone');

        config(['cellarium.identity' => '']);
        self::assertTrue(Witnesses::look()->agree(), Witnesses::look()->words());
        config(['cellarium.identity' => self::IDENTITY]);
        Installation::lay(Mark::fromIdentity(self::IDENTITY), Stores::unchecked()->objects());
        self::assertSame($key, config('app.key'));
        self::assertSame(0, $this->artisanJson('store')[0]);
        self::assertTrue($this->artisanJson('record', '--verify')[1]['ok']);
        $secrets = Account::all()->map(static fn (Account $account): string => (string) $account->secret);
        self::assertGreaterThan(12, $secrets->filter()->count(), 'they open; some accounts sign in by a key');
        self::assertSame(0, $this->artisanJson('clean')[0]);
        $aside = array_map(basename(...), glob("$this->var/contents/aside/*") ?: []);
        self::assertSame([], array_values(array_diff($aside, self::saved())), 'all else is referred to');
        $this->everyPageAnswers();
        $this->backupsAreWhole();
    }

    /** @return list<string> what changes by hand that ended have put on a server, and is held no longer than a day */
    private static function saved(): array
    {
        return ChangeByHand::whereNotIn('state', ChangeState::OPEN)->get()
            ->flatMap(static fn (ChangeByHand $change): array => array_column(
                $change->getAttribute('steps') ?? [],
                'sha256',
            ))
            ->filter()
            ->values()
            ->all();
    }

    /** @return string the key of its application */
    private function lay(string $file): string
    {
        $this->var = $this->directory();
        exec('tar -xJf '.escapeshellarg($file).' -C '.escapeshellarg($this->var), $said, $status);
        self::assertSame(0, $status);
        preg_match('/^APP_KEY=(.*)$/m', (string) file_get_contents("$this->var/env"), $match);
        Tables::dropAllTables();
        $database = (array) config('database.connections.'.config('database.default'));
        $client = proc_open(
            [
                'mariadb',
                '--no-defaults',
                "--host={$database['host']}",
                "--port={$database['port']}",
                "--user={$database['username']}",
                $database['database'],
            ],
            [['file', "$this->var/database.sql", 'rb'], 1 => ['file', '/dev/null', 'w'], 2 => ['pipe', 'w']],
            $pipes,
            null,
            ['MYSQL_PWD' => $database['password']] + getenv(),
        );
        self::assertNotFalse($client);
        self::assertSame('', stream_get_contents($pipes[2]));
        self::assertSame(0, proc_close($client));
        $this->var .= '/var';
        config([
            'cellarium.var' => $this->var,
            'cellarium.store.key_file' => "$this->var/keys/contents.json",
            'app.key' => $match[1],
        ]);
        (new CellariumServiceProvider($this->app))->register();
        $this->app->instance('encrypter', new Encrypter(
            (string) base64_decode(substr($match[1], strlen('base64:')), true),
            (string) config('app.cipher'),
        ));
        Crypt::clearResolvedInstances();

        return $match[1];
    }

    /** @return array<string, int> rows by table; sessions and the like are of no installation */
    private function counted(): array
    {
        $counted = [];
        foreach (DB::select('SHOW TABLES') as $row) {
            $table = (string) current((array) $row);
            $counted[$table] = DB::table($table)->count();
        }
        unset($counted['migrations'], $counted['cache'], $counted['sessions'], $counted['jobs']);

        return $counted;
    }

    private function everyPageAnswers(): void
    {
        $this->actingAs(Person::findOrFail(1));
        $pages = ['/', '/?as=table', '/accounts', '/packages', '/deployments', '/backups', '/backups/sites'];
        $pages = [...$pages, '/record', '/reach', '/ftp-users', '/people', '/me', '/requests', '/package-types'];
        $of = [
            '/accounts/%d' => Account::class,
            '/sites/%d' => Site::class,
            '/sites/%d/edit' => Site::class,
            '/sites/%d/set-aside' => Site::class,
            '/sites/%d/over-time' => Site::class,
            '/backups?site=%d' => Site::class,
            '/packages/%d' => Package::class,
            '/deployments/%d' => Deployment::class,
            '/backups/%d' => Backup::class,
            '/ftp-users/%d' => FtpUser::class,
            '/file-changes/%d' => ChangeByHand::class,
            '/sheets/%d' => Sheet::class,
        ];
        foreach ($of as $address => $model) {
            foreach ($model::query()->pluck('id') as $number) {
                $pages[] = sprintf($address, $number);
            }
        }
        foreach ($pages as $page) {
            $status = $this->get($page)->getStatusCode();
            self::assertSame(200, $status, "$page answers $status");
        }
    }

    private function backupsAreWhole(): void
    {
        $leftOut = file(dirname($this->var).'/left-out', FILE_IGNORE_NEW_LINES) ?: [];
        $files = app(RunFiles::class);
        $whole = 0;
        foreach (Backup::where('state', BackupState::Verified)->get() as $backup) {
            $hashes = app(\Cellarium\Core\Backup\BackupShelf::class)->salvaged((string) $backup->name);
            if (array_intersect(iterator_to_array($hashes, false), $leftOut) === []) {
                $zip = $this->get("/backups/$backup->id/zip");
                $zip->assertOk();
                self::assertStringStartsWith('PK', $zip->streamedContent());
                $whole++;
            }
        }
        self::assertGreaterThan(10, $whole);
        foreach (Deployment::all() as $deployment) {
            $deployment->state->isOver() || self::assertNotNull($files->draft($deployment), "plan $deployment->id");
            $files->hasLeft($deployment) && self::assertNotNull($files->after($deployment));
        }
        [$status, $said] = $this->artisanJson('rehearse', 'pilgrimstones.example');
        self::assertSame(0, $status, (string) json_encode($said));
    }
}
