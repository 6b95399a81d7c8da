<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use App\Errands\RunErrand;
use App\FtpUsers\FtpUsers;
use App\Hosting\Connections;
use App\Models\BulkChange;
use App\Models\BulkChangeState;
use App\Models\Client;
use App\Models\Closing;
use App\Models\Destination;
use App\Models\Errand;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\HandOver;
use App\Models\Package;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Reach\MapRow;
use App\Reach\ReachMap;
use App\Watch\Upkeep;
use Illuminate\Support\Facades\Queue;
use Tests\Support\Builder\SiteBuilder;
use Tests\Support\StandinHost;

/** What the pages and commands about FTP users show and do. */
final class FtpUserPagesTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        isset($this->person) && $this->actingAs($this->person);
    }

    private function look(): void
    {
        app(AccountCheck::class)->connect($this->account);
        $this->account->refresh()->load('sites', 'client');
    }

    public function test_made_in_the_form_proven_on_its_page_changed_and_closed(): void
    {
        $this->look();
        mkdir($this->root().'/media');
        $this->get("/accounts/{$this->account->id}/ftp-users/new?directory=/www/site.example")
            ->assertOk()
            ->assertSee('…@site.example')
            ->assertSee('92 bits')
            ->assertSee('name="forgets" value="1" checked', false);
        $this->get("/accounts/{$this->account->id}/login-check?name=north")
            ->assertSee('Signs in as')
            ->assertSee('north@site.example');
        $this->post("/accounts/{$this->account->id}/password-check", ['password' => 'pilgrim stones 1'])->assertSee(
            'bits: ',
        );
        $this->post("/accounts/{$this->account->id}/ftp-users", [
            'name' => 'north',
            'directory' => '/www/site.example',
            'password_kind' => 'random',
            'ends' => 'job',
            'purpose' => 'pictures',
            'megabytes' => '3',
        ])->assertRedirect();
        $user = FtpUser::firstOrFail();
        self::assertSame(
            [FtpUserState::Open, $this->person->id, 3_000_000],
            [$user->state, $user->person_id, $user->space_limit],
            (string) $user->trouble,
        );
        self::assertMatchesRegularExpression('/\A.{20}\z/', (string) $user->secret);
        $this->get("/ftp-users/$user->id")
            ->assertOk()
            ->assertSee('Could not climb above it')
            ->assertSee('230 Signed in')
            ->assertSee('Make a link that works once')
            ->assertSee('never, made just now');
        $this->get("/accounts/{$this->account->id}/login-check?name=north")->assertSee('exists already');
        $this->post("/ftp-users/$user->id/change", [
            'directory' => '/www/site.example/media',
            'megabytes' => '',
        ])->assertRedirect();
        self::assertSame(
            ['/www/site.example/media', null, true],
            [$user->refresh()->directory, $user->space_limit, $user->isProven()],
        );
        $this->from("/ftp-users/$user->id")
            ->followingRedirects()
            ->post("/ftp-users/$user->id/change", ['directory' => '/nowhere'])
            ->assertSee('/nowhere is not there. Nothing was changed.');
        $this->post("/ftp-users/$user->id/closing", [
            'ends' => 'never',
            'reason' => 'the till writes every night',
        ])->assertRedirect();
        self::assertSame(
            [Closing::Never, 'never: the till writes every night'],
            [$user->refresh()->ends, $user->endsWords()],
        );
        $this->post("/ftp-users/$user->id/close")->assertRedirect();
        $this->get("/ftp-users/$user->id")->assertSee('sign-in refused')->assertSee('Open again');
        $this->post("/ftp-users/$user->id/reopen", ['ends' => 'job'])->assertRedirect();
        self::assertSame(FtpUserState::Open, $user->refresh()->state);
        $this->post("/ftp-users/$user->id/remove")->assertRedirect();
        self::assertSame(FtpUserState::Removed, $user->refresh()->state);
    }

    public function test_by_hand_the_sheet_is_shown_field_by_field_until_it_is_proven(): void
    {
        $this->look();
        $this->account->update(['control_url' => null, 'company' => 'Northquay']);
        $this->post("/accounts/{$this->account->id}/ftp-users", [
            'name' => 'hand',
            'directory' => '/www/site.example',
            'password_kind' => 'own',
            'password' => 'vK7-mubel-Tarn-40q',
            'ends' => 'job',
        ])->assertRedirect();
        $user = FtpUser::firstOrFail();
        $this->get("/ftp-users/$user->id")
            ->assertSee('Create hand@site.example')
            ->assertSee('data-copy="vK7-mubel-Tarn-40q"', false)
            ->assertSee('It is done: prove it');
        $this->get('/')->assertSee('FTP user to be made at the provider');
        $this->post("/ftp-users/$user->id/prove")->assertRedirect();
        $this->get("/ftp-users/$user->id")->assertSee('not done at the provider yet');
        $this->host->control(
            'POST',
            '/v1/ftp-users',
            StandinHost::TOKEN,
            [
                'name' => 'hand',
                'password' => 'vK7-mubel-Tarn-40q',
                'directory' => '/www/site.example',
                'space_limit' => null,
            ],
        );
        $this->post("/ftp-users/$user->id/prove")->assertRedirect();
        $this->get("/ftp-users/$user->id")->assertDontSee('vK7-mubel-Tarn-40q')->assertSee('Hand over the settings');
        $this->post("/ftp-users/$user->id/close")->assertRedirect("/ftp-users/$user->id");
        $this->get("/ftp-users/$user->id")->assertSee('Close hand@site.example');
    }

    public function test_a_host_is_linked_in_the_form_and_its_token_goes_nowhere_else(): void
    {
        $address = "/accounts/{$this->account->id}";
        $right = (string) $this->account->control_url;
        $typed = [
            'client' => (string) $this->account->client_id,
            'host' => $this->account->host,
            'port' => (string) $this->account->port,
            'protocol' => 'ftps',
            'login' => $this->account->login,
            'login_form' => '{name}@by-hand.example',
        ];
        $this->post($address, $typed)->assertRedirect($address);
        self::assertSame(
            [null, null, '{name}@by-hand.example'],
            [$this->account->refresh()->control_url, $this->account->control_token, $this->account->rules()->form],
        );
        foreach (
            [
                ['control_url' => $right, 'words' => 'The access token is missing'],
                [
                    'control_url' => 'http://control.host.example',
                    'control_token' => 'x',
                    'words' => 'could read the access token',
                ],
                [
                    'control_url' => 'https://user:x@host.example/path',
                    'control_token' => 'x',
                    'words' => 'scheme and name',
                ],
                ['control_url' => 'file:///etc', 'control_token' => 'x', 'words' => 'scheme and name'],
                ['ftp_port' => '99999', 'words' => 'A port is a number'],
                ['login_form' => 'nobody', 'words' => 'has {name} in it once'],
            ] as $wrong
        ) {
            $this->post($address, $wrong + $typed)
                ->assertStatus(422)
                ->assertSee($wrong['words']);
        }
        $this->post(
            $address,
            ['control_url' => $right.'/', 'control_token' => ' '.StandinHost::TOKEN.' '] + $typed,
        )->assertRedirect($address);
        self::assertSame(
            [$right, StandinHost::TOKEN],
            [$this->account->refresh()->control_url, $this->account->control_token],
        );
        $this->look();
        self::assertSame('{name}@site.example', $this->account->rules()->form, 'the host tells itself');
        $this->post($address, ['control_url' => $right] + $typed)->assertRedirect($address);
        self::assertSame(StandinHost::TOKEN, $this->account->refresh()->control_token, 'empty: stays as it is');
        $this->post($address, ['control_url' => 'https://elsewhere.example'] + $typed)
            ->assertStatus(422)
            ->assertSee('For another address the access token is typed in again');
        $this->get("$address/edit")
            ->assertOk()
            ->assertSee($right)
            ->assertDontSee(StandinHost::TOKEN);
    }

    public function test_settings_are_handed_over_once_and_a_link_opens_a_single_time(): void
    {
        $user = $this->ftpUser();
        $password = (string) $user->secret;
        $this->post("/ftp-users/$user->id/hand-over", ['how' => 'show'])
            ->assertOk()
            ->assertSee($password)
            ->assertSee('ftp://job%40site.example@ftp.host.example:')
            ->assertSee("job%40site.example:$password@");
        $this->from('/')
            ->post("/ftp-users/$user->id/hand-over", ['how' => 'show'])
            ->assertSessionHas('trouble');
        app(FtpUsers::class)->renew($user);
        app(FtpUsers::class)->settle($user);
        $user->update(['forgets' => true]);
        $page = $this->post("/ftp-users/$user->id/hand-over", ['how' => 'link', 'hours' => '8'])->assertOk();
        preg_match('#id="link"[^>]*>([^<]+)<#', (string) $page->getContent(), $link);
        self::assertNull($user->refresh()->secret, 'it was to be forgotten');
        $code = (string) parse_url($link[1], PHP_URL_FRAGMENT);
        self::assertSame(43, strlen($code));
        self::assertStringNotContainsString($code, (string) json_encode(HandOver::first()?->getAttributes()));
        auth()->forgetUser();
        $this->get('/hand-over')->assertOk()->assertSee('wait for you')->assertDontSee('job@site.example');
        foreach ([['by' => ' ', 'code' => $code], ['by' => 'Mona', 'code' => '']] as $wrong) {
            $this->from('/hand-over')->post('/hand-over', $wrong)->assertRedirect('/hand-over');
        }
        $this->post('/hand-over', ['by' => 'Mona', 'code' => strrev($code)])->assertNotFound();
        $this->post('/hand-over', ['by' => 'Mona Sandpiper', 'code' => $code])
            ->assertOk()
            ->assertSee('job@site.example')
            ->assertHeader('Cache-Control', 'no-store, private');
        $this->post('/hand-over', ['by' => 'somebody else', 'code' => $code])
            ->assertNotFound()
            ->assertDontSee('job@site.example')
            ->assertSee('opened already, was withdrawn, or its time is over');
        $this->actingAs($this->person)
            ->get("/ftp-users/$user->id")
            ->assertSee('by Mona Sandpiper, from 127.0.0.1');
        self::assertTrue(RecordEntry::where('sentence', 'like', '%opened by Mona Sandpiper%')->exists());

        foreach (
            [
                'time' => fn () => $this->travel(2)->hours(),
                'withdrawn' => fn () => $this->post(
                    '/hand-overs/'.HandOver::latest('id')->firstOrFail()->id.'/withdraw',
                ),
                'closed' => fn () => app(FtpUsers::class)->close($user->refresh(), 'by hand'),
            ] as $why => $ends
        ) {
            app(FtpUsers::class)->renew($user->refresh());
            app(FtpUsers::class)->settle($user);
            preg_match(
                '#id="link"[^>]*>([^<]+)<#',
                (string) $this->post("/ftp-users/$user->id/hand-over", ['how' => 'link', 'hours' => '1'])
                    ->assertOk()
                    ->getContent(),
                $link,
            );
            $ends();
            $this->post('/hand-over', [
                'by' => 'late',
                'code' => (string) parse_url($link[1], PHP_URL_FRAGMENT),
            ])->assertNotFound();
            self::assertNull(HandOver::latest('id')->firstOrFail()->opened_at, $why);
        }
    }

    public function test_the_tree_is_looked_at_level_by_level_and_failed_is_not_empty(): void
    {
        mkdir("{$this->host->home}/www/site.example/deep/deeper/deepest/bottom", 0755, true);
        mkdir("{$this->host->home}/hollow");
        $address = "/accounts/{$this->account->id}/tree";
        $this->get("$address?at=%2F")->assertOk()->assertSee('not looked at yet')->assertSee('choose /hollow');
        $this->get("$address?at=/hollow")->assertSee('empty');
        $this->get("$address?at=/www")->assertSee('site.example')->assertSee('its document root');
        $this->get("$address?at=%2F")->assertSee('empty');
        self::assertSame(
            ['/', '/hollow', '/logs', '/mail', '/www', '/www/other.example', '/www/site.example'],
            array_keys($this->account->refresh()->seen()->directories),
        );
        $this->host->faults(['refuse' => true]);
        $this->app->forgetInstance(Connections::class);
        $this->get("$address?look=1&at=/logs", ['HX-Request' => 'true'])
            ->assertSee('no more connections')
            ->assertDontSee('empty');
        $this->host->faults([]);
        $this->get("$address?at=/gone")->assertSee('it is not there')->assertDontSee('empty');
        config(['queue.default' => 'database']);
        $this->get("$address?look=1&at=/logs")->assertSee('looking')->assertSee('errand=', false);
        $errand = Errand::latest('id')->firstOrFail();
        $this->get("/errands/$errand->id")->assertOk()->assertSee('waits its turn');
        $this->get("/errands/$errand->id", ['HX-Request' => 'true'])->assertOk()->assertSee('every 1s');
        (new RunErrand($errand->id))->handle();
        $this->get("$address?at=/logs&errand=$errand->id")->assertSee('1 file');
        $this->get("/errands/$errand->id", ['HX-Request' => 'true'])->assertHeader(
            'HX-Redirect',
            "/errands/$errand->id",
        );
        $this->get("/errands/$errand->id")->assertRedirect("/accounts/{$this->account->id}");
        $this->actingAs(
            Person::create([
                'name' => 'Somebody Else',
                'email' => 'else@marramtide.example',
                'password' => 'x',
                'role' => 'maintainer',
            ]),
        )
            ->get("/errands/$errand->id")
            ->assertNotFound();
    }

    public function test_before_it_exists_the_form_says_what_it_would_reach(): void
    {
        SiteBuilder::aSite('other.example')
            ->on($this->account)
            ->from('/www/other.example')
            ->of(Client::create(['name' => 'Tide Bell Ringers', 'colour' => '#5a6e2c']))
            ->build();
        file_put_contents($this->root().'/site-config.php', 'x');
        mkdir("{$this->host->home}/old");
        file_put_contents("{$this->host->home}/old/dump.sql", 'x');
        $this->look();
        $address = "/accounts/{$this->account->id}/foresight";
        $this->get("$address?directory=%2F")
            ->assertSee('The whole account')
            ->assertSee('site-config.php')
            ->assertSee('dump.sql');
        $this->get("$address?directory=/www")
            ->assertSee('Another client’s site: other.example')
            ->assertSee('Tide Bell Ringers')
            ->assertSee('Would less do?')
            ->assertSee('data-pick="/www/site.example"', false);
        $this->get("$address?directory=/www/site.example")
            ->assertDontSee('Another client')
            ->assertSee('not reached');
        $this->get("$address?directory=/mail")->assertSee('It is empty.');
        $this->deployed();
        $package = Package::firstOrFail();
        $package->update(['bytes' => 9_000_000]);
        $this->get("$address?directory=/www/site.example&megabytes=5")->assertSee('would not fit');
        $this->get("$address?directory=/www/site.example&megabytes=50")->assertDontSee('would not fit');
        $this->site->update(['bytes' => 6_000_000]);
        $this->get("$address?directory=/www/site.example&megabytes=5")->assertSee('it could store nothing');
    }

    public function test_the_map_folds_what_does_not_matter_draws_links_and_mounts_and_shows_closed_on_request(): void
    {
        foreach (range(1, 40) as $number) {
            mkdir($this->root()."/season-$number");
        }
        mkdir("{$this->host->home}/apps/blog", 0755, true);
        symlink('../../www/site.example', "{$this->host->home}/apps/blog/site");
        $this->site->update(['mounts' => [['path' => '/blog', 'directory' => '/apps/blog']]]);
        $this->look();
        $this->ftpUser('pictures', '/www/site.example/season-7');
        $this->ftpUser('gone');
        app(FtpUsers::class)->close(
            FtpUser::with('account.client', 'account.sites')->where('login', 'like', 'gone%')->firstOrFail(),
            'by hand',
        );
        $account = $this->account->load('ftpUsers', 'sites.client');
        $account->ftpUsers->each->setRelation('account', $account);
        $map = ReachMap::of($account);
        $rows = collect($map->rows)->keyBy(
            static fn (MapRow $row): string => strtolower($row->kind->name)." $row->path",
        );
        self::assertSame('39 more directories', $rows['fold /www/site.example']->name);
        self::assertTrue($rows->has('directory /www/site.example/season-7'));
        self::assertSame(
            [['site.example/blog'], ['site.example']],
            [$rows['directory /apps/blog']->serves, $rows['directory /www/site.example']->serves],
        );
        self::assertSame('directory /www/site.example', $rows->keys()[$rows['link /apps/blog/site']->leads]);
        self::assertSame(['harbour', 'pictures'], array_column($map->lanes, 'login'));
        $opened = $this->get($map->url('/www/site.example', true))
            ->assertOk()
            ->assertSee('season-40')
            ->assertSee('refused')
            ->assertDontSee('39 more');
        self::assertSame(3, substr_count((string) $opened->getContent(), 'class="lane '));
        $lines = explode("\n", trim($this->get("/accounts/{$this->account->id}/reach.csv")->streamedContent()));
        self::assertSame('account,login,state,directory,site,client,extent,part,closes,proven,"last used"', $lines[0]);
        self::assertStringContainsString(
            'pictures@site.example,open,/www/site.example/season-7,site.example,"Pilgrim Stones '
                .'Hostel",part,/season-7,"when its job ends"',
            $lines[2],
        );
        foreach (range(1, 45) as $number) {
            $this->account
                ->ftpUsers()
                ->create([
                    'login' => "many$number",
                    'directory' => '/www',
                    'state' => FtpUserState::Open,
                    'ends' => 'job',
                ]);
        }
        $many = $this->get("/accounts/{$this->account->id}")
            ->assertOk()
            ->assertSee('6 more logins are in the table and the CSV file');
        self::assertSame(41, substr_count((string) $many->getContent(), 'class="lane '));
    }

    public function test_the_matrix_and_the_list_show_who_stands_out_and_are_searched(): void
    {
        $this->get('/reach')->assertOk()->assertSee('No FTP user is open');
        $this->get('/ftp-users')->assertOk()->assertSee('No FTP user is open');
        mkdir($this->root().'/uploads');
        file_put_contents($this->root().'/uploads/x.php', 'x');
        $this->look();
        $this->ftpUser('narrow', '/www/site.example');
        $all = $this->ftpUser('all', '/');
        $all->update(['login' => '=all@site.example']);
        $all->update(['used_at' => now()->subDays(40), 'ends' => 'never', 'ends_reason' => 'so it was']);
        $page = $this->get('/reach')
            ->assertOk()
            ->assertSeeInOrder(['=all@site.example', 'narrow@site.example'])
            ->assertSee('40 d');
        self::assertSame(
            2,
            substr_count((string) $this->get('/reach?only=scripts_in_uploads')->getContent(), 'scope="row"'),
            (string) $page->getContent(),
        );
        $this->get('/reach?only=account')->assertSee('=all@site.example')->assertDontSee('narrow@site.example');
        $this->get('/reach?only=idle&idle=41')->assertDontSee('=all@site.example');
        $this->get('/reach?q=narrow')->assertDontSee('=all@site.example');
        $this->get('/reach?q=pilgrim&only=idle')->assertSee('=all@site.example')->assertDontSee('narrow@site.example');
        self::assertStringContainsString(
            "'=all@site.example",
            $this->get('/reach.csv')->streamedContent(),
            'a formula is disarmed',
        );
        $this->get('/ftp-users')
            ->assertSeeInOrder(['narrow@site.example', '=all@site.example'])
            ->assertSee('idle 40 days');
        $this->get('/ftp-users?only=never')->assertSee('never: so it was')->assertDontSee('narrow@site.example');
    }

    public function test_many_at_once_with_a_dry_run_and_a_proof_for_each(): void
    {
        $this->look();
        [$one, $two, $ended] = [$this->ftpUser('one'), $this->ftpUser('two'), $this->ftpUser('ended')];
        app(FtpUsers::class)->close($ended, 'by hand');
        $ids = [$one->id, $two->id, $ended->id];
        $this->from('/ftp-users')
            ->post('/bulk', ['kind' => 'close'])
            ->assertSessionHas('trouble', 'Tick the FTP users first.');
        $this->from('/ftp-users')
            ->post('/bulk', ['kind' => 'move', 'users' => $ids, 'closes' => '2020-01-01T00:00'])
            ->assertSessionHas('trouble');
        $go = function (string $kind) use ($ids): BulkChange {
            $this->post('/bulk', [
                'kind' => $kind,
                'users' => $ids,
                'closes' => now()->addDays(3)->format('Y-m-d\TH:i'),
            ])->assertRedirect();
            $change = BulkChange::latest('id')->firstOrFail();
            $this->get("/bulk/$change->id")
                ->assertOk()
                ->assertSee('nothing has been changed yet')
                ->assertSee('left alone');
            self::assertSame(BulkChangeState::Draft, $change->state);
            $this->post("/bulk/$change->id/start")->assertRedirect();
            $this->post("/bulk/$change->id/start")->assertSessionHas('trouble', 'This was started already.');

            return $change->refresh();
        };
        $moved = $go('move');
        self::assertSame(
            [BulkChangeState::Done, [true, true, null]],
            [$moved->state, array_map(static fn (array $item): ?bool => $item['result']['ok'] ?? null, $moved->items)],
        );
        self::assertEquals($moved->closes_at, $one->refresh()->closes_at);
        $old = $one->secret;
        $go('renew');
        self::assertNotSame($old, $one->refresh()->secret);
        $this->get('/bulk/'.BulkChange::latest('id')->firstOrFail()->id)
            ->assertSee('renewed and proven by signing in')
            ->assertSee('Hand over');

        // A worker that was killed after the first goes on with the second.
        Queue::fake();
        $this->post('/bulk', ['kind' => 'close', 'users' => $ids])->assertRedirect();
        $change = BulkChange::latest('id')->firstOrFail();
        $this->post("/bulk/$change->id/start");
        $items = $change->items;
        $items[0]['result'] = ['ok' => true, 'words' => 'closed before the worker was killed'];
        $change->refresh()->update(['items' => $items]);
        $this->travel(2)->minutes();
        app(Upkeep::class)->takeUpBulk();
        Queue::assertPushed(\App\FtpUsers\CarryOutBulk::class, 2);
        (new \App\FtpUsers\CarryOutBulk($change->id))->handle(app(\App\FtpUsers\BulkChanges::class));
        self::assertSame(
            [BulkChangeState::Done, 'closed before the worker was killed'],
            [$change->refresh()->state, $change->items[0]['result']['words']],
        );
        self::assertStringContainsString(
            'two@site.example: sign-in refused (530)',
            $change->items[1]['result']['words'],
        );
        self::assertSame([FtpUserState::Open, FtpUserState::Closed], [$one->refresh()->state, $two->refresh()->state]);
    }

    public function test_saved_destinations_are_offered_where_a_directory_is_asked_for(): void
    {
        mkdir($this->root().'/pictures');
        $this->look();
        $this->from("/sites/{$this->site->id}/edit")
            ->post("/sites/{$this->site->id}/destinations", ['name' => '', 'directory' => '/x'])
            ->assertSessionHas('trouble');
        $this->post("/sites/{$this->site->id}/destinations", [
            'name' => 'pictures',
            'directory' => '/www/site.example/pictures',
        ])->assertSessionHas('done', 'Saved.');
        $this->post("/sites/{$this->site->id}/destinations", [
            'name' => 'lost',
            'directory' => '/www/site.example/typo',
        ])->assertSessionHas(
            'done',
            'Saved. /www/site.example/typo was not there when the account was last looked at.',
        );
        $this->get("/accounts/{$this->account->id}/ftp-users/new")->assertSee(
            'data-pick="/www/site.example/pictures"',
            false,
        );
        $this->get("/accounts/{$this->account->id}/foresight?directory=/www/site.example")->assertSee('Would less do?');
        $this->get("/sites/{$this->site->id}/edit")->assertSee('remove pictures');
        $this->post('/destinations/'.Destination::firstOrFail()->id.'/remove')->assertRedirect();
        self::assertSame(['lost'], Destination::pluck('name')->all());
    }

    public function test_the_same_from_the_console(): void
    {
        $this->look();
        [$status, $made] = $this->artisanJson(
            'user-open',
            'site.example',
            'job',
            '--directory=/www/site.example',
            '--space=3MB',
            '--closes='.now()->addDay()->format('Y-m-d H:i'),
            '--hand-over',
        );
        self::assertSame([0, true, 'job@site.example', 'open'], [$status, $made['ok'], $made['login'], $made['state']]);
        self::assertSame(
            'ftp://job%40site.example@ftp.host.example:'.$this->host->ftpPort.'/',
            $made['settings']['URI'],
        );
        [$status, $again] = $this->artisanJson(
            'user-open',
            'site.example',
            'job',
            '--directory=/www/site.example',
        );
        self::assertSame([1, false, true], [$status, $again['ok'], str_contains($again['error'], 'exists already')]);
        foreach (
            [
                '--directory=www' => 'is no directory',
                '--space=lots' => 'is no space',
                '--closes=soon-ish' => 'is no time',
                '--closes=never' => 'why it never closes',
                '--closes=2020-01-01' => 'lies in the past',
            ] as $option => $words
        ) {
            self::assertStringContainsString(
                $words,
                $this->artisanJson(
                    'user-open',
                    'site.example',
                    'x',
                    ...str_starts_with($option, '--directory') ? [$option] : ['--directory=/www', $option],
                )[1]['error'],
            );
        }
        self::assertNull(FtpUser::firstOrFail()->secret, 'nobody here can read it any more');
        [$status, $proof] = $this->artisanJson('user-prove', 'site.example', 'job');
        self::assertSame(
            [0, true, ['name', 'ok', 'answer', 'at']],
            [$status, $proof['reach_ok'], array_slice(array_keys($proof['steps'][0]), 0, 4)],
        );
        [, $users] = $this->artisanJson('users', 'site.example');
        self::assertSame(
            [['job@site.example', 'open', 3_000_000, 0]],
            array_map(
                static fn (array $user): array => [$user['login'], $user['state'], $user['space'], $user['idle_days']],
                $users,
            ),
        );
        [, $reach] = $this->artisanJson('reach');
        self::assertSame(
            [
                [
                    'account' => $this->account->id,
                    'login' => 'job@site.example',
                    'directory' => '/www/site.example',
                    'open' => true,
                    'closes' => $users[0]['closes'],
                    'sites' => [['site' => 'site.example', 'extent' => 'whole']],
                    'clients' => ['Pilgrim Stones Hostel'],
                    'flags' => [],
                ],
            ],
            $reach,
        );
        self::assertCount(1, $this->artisanJson('reach', 'site.example')[1]);
        [$status, $closed] = $this->artisanJson('user-close', 'site.example', 'job@site.example');
        self::assertSame(
            [0, 'closed', 'job@site.example: sign-in refused (530)'],
            [$status, $closed['state'], $closed['proof']],
        );
        self::assertSame(1, $this->artisanJson('user-prove', 'site.example', 'job')[0]);
        [$status, $open] = $this->artisanJson(
            'user-open',
            'site.example',
            'job',
            '--closes=job',
        );
        self::assertSame(
            [0, 'open', 'job'],
            [$status, $open['state'], $open['closes']],
            'a closed one is opened again',
        );
        $this->host->faults(['no_jail' => true]);
        [$status, $proof] = $this->artisanJson('user-prove', 'site.example', 'job');
        self::assertSame([1, false, 'parent'], [$status, $proof['reach_ok'], end($proof['steps'])['name']]);
        $this->account->update(['control_url' => null]);
        [$status, $byHand] = $this->artisanJson(
            'user-open',
            'site.example',
            'hand',
            '--directory=/www/site.example',
        );
        self::assertSame([3, false, 'Create hand@site.example'], [$status, $byHand['ok'], $byHand['to_do']['title']]);
        self::assertSame(3, $this->artisanJson('user-close', 'site.example', 'job')[0]);
        self::assertSame(1, $this->artisanJson('user-close', 'site.example', 'nobody')[0]);
    }
}
