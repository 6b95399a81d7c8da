<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use App\FtpUsers\FtpUsers;
use App\Hosting\Connections;
use App\Models\Client;
use App\Models\Errand;
use App\Models\FtpUserState;
use App\Models\Package;
use App\Models\Person;
use App\Reach\MapRow;
use App\Reach\ReachMap;
use Tests\Support\Builder\SiteBuilder;

/** Who can touch what: the map of an account, the matrix over all, and what a new one would reach. */
final class ReachPagesTest extends AppTestCase
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

    private function map(): ReachMap
    {
        $account = $this->account->load('ftpUsers', 'sites.client');
        $account->ftpUsers->each->setRelation('account', $account);

        return ReachMap::forAccount($account);
    }

    public function test_the_map_folds_directories_nobody_is_kept_in(): void
    {
        foreach (range(1, 40) as $number) {
            mkdir($this->root()."/season-$number");
        }
        $this->look();
        $this->ftpUser('pictures', '/www/site.example/season-7');
        $map = $this->map();
        $rows = collect($map->rows)->keyBy(
            static fn (MapRow $row): string => strtolower($row->kind->name)." $row->path",
        );
        self::assertSame('39 more directories', $rows['fold /www/site.example']->name);
        self::assertTrue($rows->has('directory /www/site.example/season-7'));
        $this->get($map->url('/www/site.example', false))
            ->assertOk()
            ->assertSee('season-40')
            ->assertDontSee('39 more');
    }

    public function test_the_map_draws_where_links_lead_and_what_mounts_serve(): void
    {
        mkdir("{$this->host->home}/apps/blog", 0755, true);
        symlink('../../www/site.example', "{$this->host->home}/apps/blog/site");
        $this->site->update(['mounts' => [['path' => '/blog', 'directory' => '/apps/blog']]]);
        $this->look();
        $rows = collect($this->map()->rows)->keyBy(
            static fn (MapRow $row): string => strtolower($row->kind->name)." $row->path",
        );
        self::assertSame(
            [['site.example/blog'], ['site.example']],
            [$rows['directory /apps/blog']->serves, $rows['directory /www/site.example']->serves],
        );
        self::assertSame('directory /www/site.example', $rows->keys()[$rows['link /apps/blog/site']->leads]);
    }

    public function test_the_map_shows_closed_users_on_request(): void
    {
        $this->look();
        $this->ftpUser('pictures');
        app(FtpUsers::class)->close($this->ftpUser('gone'), 'by hand');
        $map = $this->map();
        self::assertSame(['harbour', 'pictures'], array_column($map->lanes, 'login'));
        $opened = $this->get($map->url(null, true))->assertOk()->assertSee('refused');
        self::assertSame(3, substr_count((string) $opened->getContent(), 'class="lane '));
    }

    public function test_the_facts_of_the_map_are_a_csv_file(): void
    {
        mkdir($this->root().'/season-7');
        $this->look();
        $this->ftpUser('pictures', '/www/site.example/season-7');
        $facts = $this->get("/accounts/{$this->account->id}/reach.csv")->streamedContent();
        self::assertStringStartsWith(
            'account,login,state,directory,site,client,extent,part,closes,proven,"last used"',
            $facts,
        );
        self::assertStringContainsString(
            'pictures@site.example,open,/www/site.example/season-7,site.example,"Pilgrim Stones '
                .'Hostel",part,/season-7,"when its job ends"',
            $facts,
        );
    }

    public function test_more_logins_than_lanes_are_in_the_table(): void
    {
        $this->look();
        foreach (range(1, 47) as $number) {
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
            ->assertSee('7 more logins are in the table and the CSV file');
        self::assertSame(41, substr_count((string) $many->getContent(), 'class="lane '));
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
        self::carryOut($errand);
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
}
