<?php

declare(strict_types=1);

namespace Tests\App;

use App\Errands\ErrandTask;
use App\Files\FileWorkers;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\NewFtpUser;
use App\Models\Account;
use App\Models\Client;
use App\Models\Closing;
use App\Models\Deployment;
use App\Models\Errand;
use App\Models\FtpUser;
use App\Models\Package;
use App\Models\Person;
use App\Models\Site;
use App\Packages\Packages;
use App\People\SessionBond;
use App\Storage\Installation;
use App\Storage\Stores;
use App\Work\RunTask;
use App\Work\TaskName;
use Carbon\CarbonImmutable;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Role;
use Cellarium\Core\Storage\Mark;
use Cellarium\Core\Transfer\TransferPools;
use Cellarium\Core\Work\Urgency;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Database\ConnectionInterface;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\DatabaseTruncation;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use Tests\Support\OwnProcessPools;
use Tests\Support\Scratch;
use Tests\Support\StandinHost;
use Tests\Support\Zips;

/** The application on a real MariaDB, with one account at a stand-in host of its own. */
abstract class AppTestCase extends TestCase
{
    use DatabaseTruncation;
    use Scratch {
        tearDown as private sweep;
    }

    protected const SITE = [
        'index.html' => '<h1>New</h1>',
        'about.html' => 'about',
        'css/a.css' => 'body{}',
        'img/deep/x.svg' => '<svg/>',
    ];

    /** Commands really run; nothing stands in for their output. */
    public $mockConsoleOutput = false;

    /** Of the installation that each test lays. */
    protected const IDENTITY = '00112233445566778899aabbccddeeff';

    /** Tests that change nothing at the host share one of their class. */
    protected const HOST_IS_ONLY_READ = false;

    /** Whether files are transferred by processes of their own, as in the running application; else in this one. */
    protected const USES_WORKERS = false;

    private static ?StandinHost $shared = null;

    /** @var list<string>|null of the database, once it is there */
    private static ?array $tables = null;

    protected StandinHost $host;

    protected Account $account;

    protected Site $site;

    protected Person $person;

    protected string $var;

    /** @var list<string> */
    protected array $exceptTables = ['migrations'];

    public function createApplication(): Application
    {
        $app = require dirname(__DIR__, 2).'/bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();

        return $app;
    }

    protected function setUp(): void
    {
        if (getenv('DB_DATABASE') === false) {
            self::markTestSkipped('These need the database that ./test starts: run ./test php.');
        }
        $this->host = static::HOST_IS_ONLY_READ
            ? self::$shared ??= new StandinHost()
            : new StandinHost();
        $this->var = $this->directory();
        set_time_limit(0); // A request that takes long sets its own, and here all share one process.
        parent::setUp();
        $this->lay();
    }

    /** Tables that hold rows are found by one question, and those few are emptied; the framework asks about each. */
    protected function truncateTablesForConnection(ConnectionInterface $connection, ?string $name): void
    {
        self::$tables ??= array_values(array_diff(
            $connection->getSchemaBuilder()->getTableListing($connection->getDatabaseName(), false),
            $this->exceptTables,
        ));
        $questions = array_map(
            static fn (string $table): string => "(SELECT '$table' AS name FROM `$table` LIMIT 1)",
            self::$tables,
        );
        foreach ($connection->select(implode(' UNION ALL ', $questions)) as $row) {
            $connection->statement("TRUNCATE `$row->name`");
        }
    }

    /** Signed in just now, as by the form. */
    public function actingAs($user, $guard = null)
    {
        parent::actingAs($user, $guard);
        $this->withSession(SessionBond::values($user));

        return $this;
    }

    /** Where a view breaks its lines does not change what a page says. */
    protected function createTestResponse($response, $request)
    {
        $content = $response->getContent();
        if (is_string($content) && str_contains((string) $response->headers->get('Content-Type'), 'text/html')) {
            $response->setContent((string) preg_replace(
                ['/<wbr>/', '~<span class="breakable">([^<]*)</span>~', '/ *\n */'],
                ['', '$1', ' '],
                $content,
            ));
        }

        return parent::createTestResponse($response, $request);
    }

    private function lay(): void
    {
        config([
            'cellarium.var' => $this->var,
            'cellarium.self_backup.to' => "$this->var-own",
            'cellarium.self_backup.passphrase_file' => "$this->var-passphrase",
            'cellarium.identity' => self::IDENTITY,
            'cellarium.store.key_file' => "$this->var/keys/contents.json",
            'cellarium.rehearsal' => [
                'root' => "{$this->host->directory}/rehearsal",
                'url' => "http://rehearsal.example:{$this->host->webPort}",
            ],
            'cellarium.hosts_file' => "{$this->host->directory}/hosts",
            'cellarium.authorities' => "{$this->host->directory}/ca.pem",
            'queue.default' => 'sync',
            'session.driver' => 'array',
            'cache.default' => 'array',
            'cellarium.second_factor' => 'nobody',
        ]);
        (new \App\Providers\CellariumServiceProvider($this->app))->register();
        static::USES_WORKERS || $this->app->bind(TransferPools::class, OwnProcessPools::class);
        static::USES_WORKERS || $this->app->when(FileWorkers::class)
            ->needs(TransferPools::class)
            ->give(OwnProcessPools::class);
        Installation::lay(Mark::fromIdentity((string) config('cellarium.identity')), Stores::unchecked()->objects());
        $this->person = Person::create([
            'name' => 'Rowan Aldous',
            'email' => 'aldous@marramtide.example',
            'password' => 'a-word-for-tests',
            'role' => Role::Maintainer,
        ]);
        $this->account = Client::create(['name' => 'Pilgrim Stones Hostel', 'colour' => '#6f5a44'])
            ->accounts()
            ->create([
                'company' => 'Harbourhost',
                'host' => StandinHost::HOST,
                'port' => $this->host->ftpPort,
                'protocol' => 'ftps',
                'login' => StandinHost::LOGIN,
                'secret' => StandinHost::PASSWORD,
                'control_url' => "http://127.0.0.1:{$this->host->controlPort}",
                'control_token' => StandinHost::TOKEN,
            ]);
        $this->site = $this->account->sites()->create([
            'domain' => 'site.example',
            'base_url' => "http://site.example:{$this->host->webPort}",
            'document_root' => '/www/site.example',
            'start_pages' => ['index.html', 'index.htm', 'index.php', 'default.htm'],
            'kept' => ['uploads/'],
        ]);
        $this->account = Account::with('client', 'sites')->findOrFail($this->account->id);
        $this->site = Site::with('account.client', 'account.sites')->findOrFail($this->site->id);
    }

    protected function tearDown(): void
    {
        parent::tearDown();
        $errors = isset($this->host) ? $this->host->errors() : '';
        isset($this->host) && $this->host !== self::$shared && $this->host->stop();
        $this->sweep();
        self::assertSame('', $errors, 'the stand-in had a fault of its own');
    }

    public static function tearDownAfterClass(): void
    {
        parent::tearDownAfterClass();
        self::$shared?->stop();
        self::$shared = null;
    }

    /** Files that a worker has fetched for a download that was ordered; the web server sends them, and is not here. */
    protected function sentOf(TestResponse $ordered): \ZipArchive
    {
        $sent = $this->get((string) $ordered->assertRedirect()->headers->get('Location'))->assertOk();
        $sent->assertHeader('Content-Type', 'application/zip');
        $name = basename((string) $sent->headers->get('X-Accel-Redirect'));
        $zip = new \ZipArchive;
        self::assertTrue($zip->open("$this->var/spool/$name", \ZipArchive::RDONLY | \ZipArchive::CHECKCONS));

        return $zip;
    }

    /** @return array<string, string> what a process of its own needs to work in the same world */
    protected function settings(): array
    {
        return [
            'CELLARIUM_VAR' => $this->var,
            'CELLARIUM_IDENTITY' => self::IDENTITY,
            'CELLARIUM_HOSTS_FILE' => "{$this->host->directory}/hosts",
            'CELLARIUM_AUTHORITIES' => "{$this->host->directory}/ca.pem",
        ];
    }

    /** That a worker is to do it, under a queue that was faked. */
    protected static function assertOrdered(string $task, int $row, ?Urgency $urgency = null): void
    {
        Queue::assertPushed(
            RunTask::class,
            static fn (string $job, ?string $queue, array $order): bool => $order['task'] === TaskName::forTask($task)
                && $order['row'] === $row
                && ($urgency === null || $queue === $urgency->value),
        );
    }

    protected static function carryOut(Errand $errand): void
    {
        app(ErrandTask::find($errand))->carryOut($errand->id);
    }

    protected function root(): string
    {
        return "{$this->host->home}/www/site.example";
    }

    /** @param  array<string, string>  $files */
    protected function zip(array $files = self::SITE, string $name = 'stones-1.0.zip'): string
    {
        $wrapped = [];
        foreach ($files as $path => $text) {
            $wrapped["stones/$path"] = $text;
        }

        return Zips::make("$this->var/$name", $wrapped);
    }

    /** @param  array<string, string>  $files */
    protected function package(array $files = self::SITE, string $name = 'stones-1.0.zip'): Package
    {
        return app(Packages::class)->take($this->zip($files, $name), $name);
    }

    /** @return array{int, array<string, mixed>} exit status and the JSON object */
    protected function artisanJson(string $command, string ...$arguments): array
    {
        $kernel = $this->app->make(Kernel::class);
        $output = new \Symfony\Component\Console\Output\BufferedOutput();
        $status = $kernel->handle(
            new \Symfony\Component\Console\Input\ArgvInput(['artisan', "cellarium:$command", ...$arguments, '--json']),
            $output,
        );
        $text = $output->fetch();
        $data = json_decode($text, true);
        self::assertIsArray($data, $text);

        return [$status, $data];
    }

    /** An FTP user made and proven at the stand-in. */
    protected function ftpUser(
        string $name = 'job',
        string $directory = '/www/site.example',
        Closing $ends = Closing::WithJob,
        ?CarbonImmutable $closesAt = null,
        ?int $space = null,
    ): FtpUser {
        return app(FtpUsers::class)->open(
            $this->account,
            new NewFtpUser($name, RemotePath::fromString($directory), $space, $ends, $closesAt, person: $this->person),
        );
    }

    /** @param  array<string, string>  $files */
    protected function deployed(array $files = self::SITE): Deployment
    {
        [$status, $report] = $this->artisanJson('deploy', 'site.example', $this->zip($files));
        self::assertSame(0, $status, json_encode($report, JSON_THROW_ON_ERROR));

        return Deployment::findOrFail($report['deployment']);
    }
}
