<?php

declare(strict_types=1);

namespace Tests\App;

use App\Deployments\DeploymentSteps;
use App\Deployments\DeploymentStepState;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Closing;
use App\Models\DeploymentState;
use App\Models\Package;
use App\Packages\FileTree;
use App\Plans\Plans;
use App\Plans\PlanTotals;
use App\Reach\ReachMap;
use App\Text\Amount;
use App\Text\Breakable;
use App\Today\SiteSummary;
use Illuminate\Http\UploadedFile;
use Tests\Support\Builder\AccountBuilder;
use Tests\Support\Builder\SiteBuilder;

/** What pages show, and the ways in and around. */
final class PagesTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    public function test_sign_in_keeps_the_address_and_slows_guessing_down(): void
    {
        $this->from('/sign-in')
            ->post('/sign-in', ['email' => $this->person->email, 'password' => 'a-word-for-tests'])
            ->assertRedirect('/');
        $this->assertAuthenticatedAs($this->person);
        $this->post('/sign-out')->assertRedirect('/sign-in');
        $this->assertGuest();
        for ($try = 1; $try <= 6; $try++) {
            $this->from('/sign-in')
                ->post('/sign-in', ['email' => $this->person->email, 'password' => "guess $try"])
                ->assertSessionHasErrors('email')
                ->assertSessionHasInput('email', $this->person->email);
        }
        $this->followingRedirects()
            ->from('/sign-in')
            ->post('/sign-in', ['email' => $this->person->email, 'password' => 'a-word-for-tests'])
            ->assertSee('Too many tries');
        $this->assertGuest();
    }

    public function test_the_finder_finds_everything_in_any_case_and_takes_wildcards_as_letters(): void
    {
        $this->package();
        $this->actingAs($this->person);
        foreach (
            [
                'SITE.ex' => 'site.example',
                'HARBOUR' => 'harbour on ftp.host.example',
                'pilgrim st' => 'Pilgrim Stones Hostel',
                'stones' => 'stones 1.0',
            ] as $words => $found
        ) {
            $this->get('/find?q='.urlencode($words))
                ->assertOk()
                ->assertSee($found);
        }
        $this->get('/find?q=%25')->assertSee('Nothing is called');
        $this->get('/find?q=')->assertOk()->assertDontSee('Nothing is called');
        $this->get('/find?q='.urlencode('<script>'))->assertDontSee('<script>', false);
    }

    public function test_the_same_bytes_are_one_package_under_whatever_name(): void
    {
        $file = $this->zip();
        $this->actingAs($this->person);
        foreach (['one-1.0.zip', '..\\..\\two.zip'] as $name) {
            $this->post('/packages', ['package' => new UploadedFile($file, $name, null, null, true)])->assertRedirect(
                '/packages/'.Package::firstOrFail()->id,
            );
        }
        self::assertSame(1, Package::count());
        $this->get('/packages/'.Package::firstOrFail()->id)
            ->assertSee('Everything lay inside the folder stones')
            ->assertSee('css/a.css');
        $this->post('/packages', [])->assertSessionHasErrors('package');
    }

    public function test_a_plan_of_many_files_is_summed_up_and_hostile_names_are_only_text(): void
    {
        $files = ['index.html' => 'i', '<img src=x onerror=alert(1)>.html' => 'x'];
        for ($number = 0; $number < 500; $number++) {
            $files["deep/$number.txt"] = 'x';
        }
        $run = app(Plans::class)->deploy($this->site, $this->package($files));
        $page = $this->actingAs($this->person)
            ->get("/deployments/$run->id")
            ->assertOk();
        $page
            ->assertDontSee('<img src=x', false)
            ->assertSee('502 added')
            ->assertSee('500 files')
            ->assertDontSee('deep/7.txt');
        $this->get("/deployments/$run->id/plan?in=deep")
            ->assertOk()
            ->assertSee('deep/0.txt')
            ->assertSee('Show more of 400 that follow')
            ->assertDontSee('deep/99.txt');
        $this->get("/deployments/$run->id/plan?in=deep&from=400")->assertSee('deep/99.txt')->assertDontSee('Show more');
        $this->get("/deployments/$run->id/plan?name=P/49&show=added")
            ->assertSee('deep/49.txt')
            ->assertSee('deep/499.txt')
            ->assertDontSee('index.html');
        $this->get("/deployments/$run->id/plan?name=nowhere")->assertSee('No file fits that');
        $this->get("/packages/$run->package_id/landing?site={$this->site->id}&in=deep")->assertSee('deep/0.txt');
        $this->get("/packages/$run->package_id")->assertDontSee('<img src=x', false);
    }

    public function test_trees_sum_up_what_lies_in_their_directories(): void
    {
        $package = $this->package();
        $rows = collect(FileTree::ofManifest($package->contents()))->keyBy('path');
        self::assertSame([1, 6, 1], [$rows['img']['files'], $rows['img']['bytes'], $rows['img/deep']['depth']]);
        self::assertSame(
            ['about.html', 'css', 'css/a.css', 'img', 'img/deep', 'img/deep/x.svg', 'index.html'],
            $rows->keys()->all(),
        );
        file_put_contents($this->root().'/about.html', 'an older and longer one');
        $run = app(Plans::class)->deploy($this->site, $package);
        $totals = new PlanTotals($run->counts);
        self::assertSame(
            ['done', 'open', 'here', 'open', 'open', 'open'],
            array_map(
                static fn (array $station): string => $station['state']->value,
                DeploymentSteps::forDeployment($run->load('site', 'package', 'backup'), $totals),
            ),
        );
        $run->update(['state' => DeploymentState::PutBack]);
        self::assertSame(DeploymentStepState::Failed, DeploymentSteps::forDeployment($run, $totals)[4]['state']);
    }

    public function test_a_run_that_changed_nothing_says_what_it_would_have_changed(): void
    {
        $run = app(Plans::class)->deploy($this->site, $this->package());
        $heading = fn (): string => (string) preg_replace(
            '/.*<h1 id="change">\s*([^<]+?)\s*<.*/s',
            '$1',
            (string) $this->actingAs($this->person)->get("/deployments/$run->id")->assertOk()->getContent(),
        );
        $said = [];
        foreach (['planned', 'refused', 'cancelled', 'put_back', 'proven'] as $state) {
            $run->update(['state' => $state, 'ended_at' => $state === 'planned' ? null : now()]);
            $said[$state] = $heading();
        }
        self::assertSame([
            'planned' => 'What will change',
            'refused' => 'What would have changed',
            'cancelled' => 'What would have changed',
            'put_back' => 'What would have changed',
            'proven' => 'What changed',
        ], $said);
        $run->update(['state' => DeploymentState::Refused, 'stage' => \Cellarium\Core\Deployment\RunStage::Proving]);
        $stations = DeploymentSteps::forDeployment(
            $run->load('site', 'package', 'backup'),
            new PlanTotals($run->counts),
        );
        self::assertSame(
            [DeploymentStepState::Failed, DeploymentStepState::Open],
            [$stations[2]['state'], $stations[5]['state']],
            'neither its plan nor its proof is filled',
        );
    }

    public function test_the_reach_map_has_a_bar_over_just_the_rows_a_login_can_touch(): void
    {
        SiteBuilder::aSite('other.example')->on($this->account)->from('/www/other.example')->build();
        $account = $this->account->load('sites', 'client');
        mkdir($this->root().'/img');
        app(\App\Accounts\AccountCheck::class)->connect($account);
        $this->ftpUser('pictures', '/www/site.example/img', Closing::AtTime, now()->addDay());
        $this->ftpUser('wide', '/www', Closing::AtTime, now()->addDay());
        $account->load('ftpUsers.proofs');
        $account->ftpUsers->each->setRelation('account', $account);
        $map = ReachMap::forAccount($account);
        $paths = array_column($map->rows, 'path');
        self::assertSame(
            ['/', '/logs', '/mail', '/www', '/www/other.example', '/www/site.example', '/www/site.example/img'],
            $paths,
        );
        $lanes = collect($map->lanes)->keyBy('login');
        self::assertSame([0, 6], [$lanes['harbour']->from, $lanes['harbour']->to]);
        self::assertSame(
            [6, 6, 'part of a site', false],
            [
                $lanes['pictures']->from,
                $lanes['pictures']->to,
                $lanes['pictures']->note,
                $lanes['pictures']->warn,
            ],
        );
        self::assertSame(
            [3, 6, '2 sites: too wide', true],
            [$lanes['wide']->from, $lanes['wide']->to, $lanes['wide']->note, $lanes['wide']->warn],
        );
        $this->actingAs($this->person)
            ->get("/accounts/$account->id")
            ->assertOk()
            ->assertSee('2 sites: too wide')
            ->assertSee('serves site.example');
        $this->get("/accounts/$account->id/foresight?directory=/www")->assertSee('Wider than one job needs');
        $this->get("/accounts/$account->id/foresight?directory=/nowhere")->assertSee('It is not there');
        $this->get("/accounts/$account->id/foresight?directory=../x")->assertSee('This is not a directory');
    }

    public function test_a_jar_says_in_words_what_its_shape_shows(): void
    {
        $this->deployed();
        $site = $this->site->refresh()->load('lastDeployment');
        $jar = new SiteSummary($site, $this->account->load('ftpUsers'), 0.25, false);
        self::assertSame(['proven', false, true, false], [$jar->tone, $jar->empty, $jar->proven, $jar->overdue]);
        self::assertStringContainsString('live page proven', $jar->words());
        $this->travel(9)->days();
        $late = new SiteSummary($site, $this->account, 0.25, true);
        self::assertSame(['soon', true], [$late->tone, $late->overdue]);
        self::assertStringContainsString('an FTP user is open, backup overdue', $late->words());
        self::assertGreaterThan((new SiteSummary($site, $this->account, 0.01, false))->level(), $jar->level());
        $this->actingAs($this->person)->get('/')->assertSee($late->site->domain);
    }

    public function test_amounts_read_as_people_say_them(): void
    {
        self::assertSame(
            ['0 B', '999 B', '1 KB', '18.2 MB', '5 GB', 'not known'],
            array_map(Amount::bytes(...), [0, 999, 1000, 18_200_000, 5_000_000_000, null]),
        );
        self::assertSame(['1 file', '1,200 files'], [Amount::files(1), Amount::files(1200)]);
        self::assertSame(['0.4 s', '42 s', '2 min 5 s', '…'], array_map(Amount::seconds(...), [0.42, 42.3, 125, null]));
        self::assertSame('never', Amount::ago(null));
    }

    public function test_pages_of_a_new_agency_with_nothing_in_it(): void
    {
        $this->actingAs($this->person);
        foreach (
            [
                '/packages' => 'No package yet',
                '/deployments' => 'Nothing was deployed yet',
                '/backups' => 'No backup yet',
                '/record?q=zzz' => 'Nothing in the record fits',
                '/deployments?q=zzz' => 'No deployment fits',
            ] as $path => $words
        ) {
            $this->get($path)->assertOk()->assertSee($words);
        }
        $account = AccountBuilder::anAccount()->of('New Client')->build();
        $this->get("/accounts/$account->id")
            ->assertOk()
            ->assertSee('No site of this account is known yet')
            ->assertSee('were not looked at yet')
            ->assertSee('Nobody but the account itself can sign in');
        Backup::create([
            'site_id' => $this->site->id,
            'reason' => 'on_demand',
            'state' => BackupState::Failed,
            'trouble' => 'The account is full.',
        ]);
        $this->get('/backups')->assertSee('failed')->assertSee('The account is full.');
        $this->from('/backups')
            ->followingRedirects()
            ->post('/backups/'.Backup::firstOrFail()->id.'/restore')
            ->assertSee('was not verified and cannot be restored');
    }

    public function test_domains_paths_and_logins_break_after_dots_slashes_and_at_signs_only(): void
    {
        foreach ([
            'shop.gannetrocklight.example' => 'shop.<wbr>gannetrocklight.<wbr>example',
            '/www/site/index.html' => '/<wbr>www/<wbr>site/<wbr>index.<wbr>html',
            'desk@site.example' => 'desk@<wbr>site.<wbr>example',
            'http://a.example/' => 'http://<wbr>a.<wbr>example/',
            '../<b>' => '../<wbr>&lt;b&gt;',
            '' => '',
        ] as $text => $html) {
            self::assertSame($html, (string) Breakable::html((string) $text));
        }
    }

    public function test_in_a_sentence_only_names_break_and_only_where_names_may(): void
    {
        self::assertSame(
            'Landed in <span class="breakable">/<wbr>www/<wbr>north.<wbr>site.<wbr>example</span>: 7 of 7, &lt;b&gt;.',
            (string) Breakable::sentence('Landed in /www/north.site.example: 7 of 7, <b>.'),
        );
        self::assertSame('', (string) Breakable::sentence(null));
    }
}
