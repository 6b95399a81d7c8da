<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Account;
use App\Models\ApiToken;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\BulkChange;
use App\Models\ChangeByHand;
use App\Models\Client;
use App\Models\ClientRequest;
use App\Models\Deployment;
use App\Models\Destination;
use App\Models\Errand;
use App\Models\FileDraft;
use App\Models\FtpUser;
use App\Models\HandOver;
use App\Models\Package;
use App\Models\Person;
use App\Models\SavedView;
use App\Models\SetAside;
use App\Models\Sheet;
use App\Models\Site;
use App\Models\Upload;
use App\People\Access;
use Cellarium\Core\People\Role;
use Illuminate\Routing\Contracts\ControllerDispatcher;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Testing\TestResponse;
use Tests\Support\Builder\AccountBuilder;

/**
 * Walks every route with every role and with nobody signed in. What comes out is the table in docs/permissions.md; a
 * route that is new or lets somebody else in makes it differ.
 *
 * Nothing is carried out: in place of the controllers stands one that says that it was reached.
 */
final class RoutePermissionsTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    private const TABLE = __DIR__.'/../../docs/permissions.md';

    /** What needs no permission: signing in, and links that carry their own. */
    private const IN_FRONT = [
        'GET /sign-in',
        'POST /sign-in',
        'GET /sign-in/code',
        'POST /sign-in/code',
        'GET /signed-in',
        'GET /client-sheet',
        'GET /client-sheet/{given}',
        'GET /client-sheet/{given}.json',
        'GET /hand-over',
        'POST /client-sheet',
        'POST /hand-over',
        'GET /welcome',
        'POST /welcome',
    ];

    private const REACHED = 'reached';

    /** Minutes; a sign-in is fresh for fifteen. */
    private const TOO_LONG_AGO = 16;

    /** @var array<string, int|string> */
    private array $theirs;

    /** @var array<string, int|string> */
    private array $anothers;

    protected function setUp(): void
    {
        parent::setUp();
        $this->theirs = $this->things($this->account, $this->site);
        $account = AccountBuilder::anAccount()->of('Kelpie Boatyard')->withSite('kelpie.example', '/www')->build();
        $this->anothers = $this->things($account, $account->sites->firstOrFail());
        $this->app->instance(ControllerDispatcher::class, new class implements ControllerDispatcher
        {
            public function dispatch(Route $route, $controller, $method): string
            {
                return 'reached';
            }

            /** @return array<mixed> */
            public function getMiddleware($controller, $method): array
            {
                return [];
            }
        });
    }

    public function test_every_route_names_its_permission(): void
    {
        $without = [];
        foreach ($this->routes() as $name => $route) {
            Access::forRoute($route) !== null || $without[] = $name;
        }
        sort($without);
        $known = self::IN_FRONT;
        sort($known);
        self::assertSame($known, $without, 'A route stands under the permission it needs, see routes/web.php.');
    }

    public function test_who_gets_where_is_what_is_written_down(): void
    {
        $rows = [];
        foreach ($this->routes() as $name => $route) {
            $cells = [$name, Access::forRoute($route)->value ?? 'none'];
            foreach ([null, $this->person, $this->of(Role::Helper)] as $person) {
                $cells[] = $this->outcome($this->walk($route, $this->theirs, $person));
            }
            array_splice($cells, 4, 0, [
                $this->outcome($this->walk($route, $this->theirs, $this->person, self::TOO_LONG_AGO)),
            ]);
            $clients = $this->of(Role::ClientsPerson);
            $cells[] = $this->outcome($this->walk($route, $this->theirs, $clients));
            $clients->update(['may_fetch_backups' => true]);
            $cells[] = str_contains($route->uri(), '{')
                ? $this->outcome($this->walk($route, $this->anothers, $clients))
                : '';
            $rows[] = '| '.implode(' | ', $cells).' |';
        }
        $written = self::document($rows);
        getenv('WRITE_DOCUMENTS') === false || file_put_contents(self::TABLE, $written);
        self::assertSame(
            $written,
            (string) file_get_contents(self::TABLE),
            'Who gets where differs from docs/permissions.md. If that is meant: WRITE_DOCUMENTS=1 ./test php --filter '
                .'RoutePermissions writes it anew.',
        );
    }

    public function test_what_is_another_clients_answers_like_what_does_not_exist(): void
    {
        $clients = $this->of(Role::ClientsPerson);
        $clients->update(['may_fetch_backups' => true]);
        $this->walk($this->routes()['GET /'], $this->theirs, $clients); // That they were seen is written down now.
        $missing = ['type' => 'no-such-type'] + array_map(static fn (): string => '987654', $this->anothers);
        foreach ($this->routes() as $name => $route) {
            if (! str_contains($route->uri(), '{') || Access::forRoute($route) === null) {
                continue; // What carries its own permission asks nobody's role.
            }
            [$one, $asked] = $this->counted(fn () => $this->walk($route, $this->anothers, $clients));
            [$none, $askedOfNone] = $this->counted(fn () => $this->walk($route, $missing, $clients));
            self::assertSame(404, $none->getStatusCode(), $name);
            self::assertSame($none->getStatusCode(), $one->getStatusCode(), $name);
            self::assertSame(self::plain($none), self::plain($one), $name);
            self::assertSame($askedOfNone, $asked, "$name asks the database otherwise, which takes another time");
        }
    }

    public function test_what_is_another_persons_own_is_not_there_for_anybody_else(): void
    {
        $another = Person::create([
            'name' => 'Sorrel Haven',
            'email' => 'haven@marramtide.example',
            'password' => 'a-word-for-tests',
            'role' => Role::Maintainer,
        ]);
        $own = ['errand', 'check', 'search', 'upload', 'draft', 'view', 'token'];
        $asked = [];
        foreach ($this->routes() as $name => $route) {
            foreach (array_intersect($own, $route->parameterNames()) as $what) {
                self::assertSame('allowed', $this->outcome($this->walk($route, $this->theirs, $this->person)), $name);
                self::assertSame('not there', $this->outcome($this->walk($route, $this->theirs, $another)), $name);
                $asked[$what] = true;
            }
        }
        self::assertEqualsCanonicalizing($own, array_keys($asked));
    }

    public function test_nothing_that_hands_out_secrets_or_lets_go_is_reached_after_signing_in_too_long_ago(): void
    {
        foreach ([
            'POST /ftp-users/{user}/hand-over',
            'POST /accounts/export-secrets',
            'POST /removals/{kind}/{id}',
            'POST /people/{person}/close',
        ] as $name) {
            self::assertSame('again', $this->outcome($this->walk(
                $this->routes()[$name],
                $this->theirs,
                $this->person,
                self::TOO_LONG_AGO,
            )), $name);
        }
    }

    /** @return array<string, Route> */
    private function routes(): array
    {
        $named = [];
        foreach (Routes::getRoutes()->getRoutes() as $route) {
            $method = in_array('GET', $route->methods(), true) ? 'GET' : $route->methods()[0];
            $named["$method /".ltrim($route->uri(), '/')] = $route;
        }

        return $named;
    }

    /**
     * @param  array<string, int|string>  $things
     * @param  int  $minutes  since somebody has signed in
     */
    private function walk(Route $route, array $things, ?Person $person, int $minutes = 0): TestResponse
    {
        $this->flushSession();
        $this->app['auth']->forgetGuards();
        $person === null || $this->actingAs(Person::findOrFail($person->id));
        $minutes === 0 || $this->withSession(['fresh_at' => now()->subMinutes($minutes)->getTimestamp()]);

        return $this->send($route, $things);
    }

    /** @param  array<string, int|string>  $things */
    private function send(Route $route, array $things): TestResponse
    {
        $address = '/'.ltrim((string) preg_replace_callback(
            '/\{(\w+)\??\}/',
            static fn (array $match): string => (string) $things[$match[1]],
            $route->uri(),
        ), '/');

        return $this->call(in_array('GET', $route->methods(), true) ? 'GET' : $route->methods()[0], $address);
    }

    private function outcome(TestResponse $response): string
    {
        $to = parse_url((string) $response->headers->get('Location'), PHP_URL_PATH);

        return match (true) {
            $response->getContent() === self::REACHED => 'allowed',
            // HEAD: the same without a body.
            $response->getStatusCode() === 200 && $response->getContent() === '' => 'allowed',
            $response->getStatusCode() === 401 => 'asks for a token',
            $response->getStatusCode() === 403 => 'refused',
            $response->getStatusCode() === 404 => 'not there',
            $to === '/sign-in' => 'signs in first',
            $to === '/sign-in/again' => 'again',
            $to === '/', $to === null => 'signed in already',
            default => "{$response->getStatusCode()} $to",
        };
    }

    /** @return array{TestResponse, int} with how many questions the database was asked */
    private function counted(callable $walk): array
    {
        DB::flushQueryLog();
        DB::enableQueryLog();
        $response = $walk();
        DB::disableQueryLog();

        return [$response, count(DB::getQueryLog())];
    }

    private static function plain(TestResponse $response): string
    {
        return (string) preg_replace('/name="_token" value="[^"]*"/', '', (string) $response->getContent());
    }

    private function of(Role $role): Person
    {
        return Person::firstOrCreate(['email' => "$role->value@marramtide.example"], [
            'name' => 'Wren Tideway',
            'password' => 'a-word-for-tests',
            'role' => $role,
            'client_id' => $role === Role::ClientsPerson ? $this->account->client_id : null,
        ]);
    }

    /** @return array<string, int|string> one of everything that a route may name, of one client */
    private function things(Account $account, Site $site): array
    {
        $person = Person::create([
            'name' => 'Isla Shore',
            'email' => "person$account->id@marramtide.example",
            'role' => Role::ClientsPerson,
            'client_id' => $account->client_id,
        ]);
        $user = FtpUser::create([
            'account_id' => $account->id,
            'login' => "user$account->id",
            'directory' => '/www',
            'state' => 'open',
            'ends' => 'never',
            'ends_reason' => 'a test',
        ]);
        $backup = Backup::create([
            'site_id' => $site->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Verified,
        ]);
        $package = Package::create([
            'name' => "stones$account->id",
            'version' => '1',
            'sha256' => hash('sha256', (string) $account->id),
            'file_name' => 'stones.zip',
            'files' => 0,
            'bytes' => 0,
            'packed_bytes' => 0,
            'findings' => [],
            'stops' => false,
        ]);
        $deployment = Deployment::create([
            'site_id' => $site->id,
            'package_id' => $package->id,
            'kind' => 'deploy',
            'state' => 'proven',
            'policy' => [],
            'counts' => [],
        ]);

        $errand = Errand::create([
            'kind' => 'find_root',
            'state' => 'waiting',
            'person_id' => $this->person->id,
            'site_id' => $site->id,
            'account_id' => $account->id,
            'back' => '/',
            'given' => [],
        ])->id;

        return [
            'account' => $account->id,
            'site' => $site->id,
            'user' => $user->id,
            'client' => $account->client_id,
            'package' => $package->id,
            'other' => $package->id,
            'deployment' => $deployment->id,
            'backup' => $backup->id,
            'aside' => SetAside::create([
                'site_id' => $site->id,
                'deployment_id' => $deployment->id,
                'path' => 'old.html',
                'sha256' => hash('sha256', 'old'),
                'bytes' => 3,
                'set_aside_at' => now(),
                'held_until' => now()->addDay(),
            ])->id,
            'byhand' => ChangeByHand::create([
                'account_id' => $account->id,
                'site_id' => $site->id,
                'action' => 'new_folder',
                'state' => 'done',
                'directory' => '/',
                'title' => 'New folder dials',
                'asked' => [],
            ])->id,
            'sheet' => Sheet::create([
                'client_id' => $account->client_id,
                'site_id' => $site->id,
                'covers_from' => now(),
                'covers_until' => now(),
                'signed' => '{}',
            ])->id,
            'given' => 1,
            'path' => 'index.html',
            'draft' => FileDraft::create([
                'account_id' => $account->id,
                'person_id' => $this->person->id,
                'path' => '/index.html',
                'path_hash' => "none of $account->id",
                'opened_at' => now(),
                'here_at' => now(),
            ])->id,
            'type' => 'built-site',
            'upload' => Upload::create([
                'person_id' => $this->person->id,
                'file_name' => 'stones.zip',
                'length' => 1,
                'expires_at' => now()->addDay(),
            ])->id,
            'token' => ApiToken::create([
                'person_id' => $this->person->id,
                'name' => 'a pipeline',
                'scope' => 'deliver_packages',
                'sha256' => hash('sha256', "token of $account->id"),
            ])->id,
            'person' => $person->id,
            'view' => SavedView::create([
                'person_id' => $this->person->id,
                'name' => "v$account->id",
                'query' => '',
            ])->id,
            'errand' => $errand,
            'search' => $errand,
            'check' => $errand,
            'change' => BulkChange::create(['kind' => 'close', 'state' => 'draft', 'items' => []])->id,
            'link' => HandOver::create([
                'ftp_user_id' => $user->id,
                'finder' => hash('sha256', "f$account->id"),
                'sealed' => 'x',
                'expires_at' => now()->addDay(),
            ])->id,
            'destination' => Destination::create([
                'site_id' => $site->id,
                'name' => 'blog',
                'directory' => '/www/blog',
            ])->id,
            'asked' => ClientRequest::create([
                'client_id' => $account->client_id,
                'person_id' => $person->id,
                'kind' => 'change',
                'words' => 'Please.',
            ])->id,
            'name' => str_repeat('a', 32),
            'kind' => 'sites',
            'id' => $site->id,
        ];
    }

    /** @param  list<string>  $rows */
    private static function document(array $rows): string
    {
        return implode("\n", [
            '# Who gets where',
            '',
            'Written by `tests/App/RoutePermissionsTest.php`, which asks every route as everybody: *allowed* is let',
            'in, *refused* is told why not (403), *not there* is told that there is no such page (404), in the same',
            'words as for a number that does not exist, *again* signs in once more: the column before *helper* is a',
            'maintainer who signed in a while ago. The last column asks for what belongs to another client, with',
            'the permission to download backups. The permission is a gate; which role has it stands in',
            '`core/People/Role.php`.',
            '',
            '| route | permission | nobody | maintainer | a while ago | helper | client’s person | of another client |',
            '|---|---|---|---|---|---|---|---|',
            ...$rows,
            '',
        ]);
    }
}
