<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Closing;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUserState;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Plans\Plans;
use App\Runs\Runner;
use App\Runs\StartPlan;
use App\Storage\SiteLockNames;
use App\Today\Concerns;
use App\Watch\Recovery;
use App\Work\RunTask;
use Cellarium\Core\Storage\Locks;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\Support\Builder\PersonBuilder;

final class RunsTest extends AppTestCase
{
    public function test_two_runs_on_one_account_never_go_at_once_and_the_second_says_for_what_it_waits(): void
    {
        $first = app(Plans::class)->deploy($this->site, $this->package());
        $first->update(['state' => DeploymentState::Running]);
        $second = app(Plans::class)->deploy($this->site, $this->package());
        $second->update(['state' => DeploymentState::Queued]);
        $before = self::contents($this->root());
        $lock = app(Locks::class)->acquire(...SiteLockNames::forSite($this->site));
        self::assertNotNull($lock);
        self::assertFalse(app(Runner::class)->carryOut($second));
        $second->refresh();
        self::assertSame([DeploymentState::Waiting, $first->id], [$second->state, $second->waits_for_id]);
        self::assertSame($before, self::contents($this->root()));
        $this->actingAs($this->person)
            ->get("/deployments/$second->id/live")
            ->assertOk()
            ->assertSee('Another run is at work here')
            ->assertSee('every 1s');

        Queue::fake();
        Deployment::query()->update(['updated_at' => now()->subMinutes(5)]);
        self::assertSame(0, app(Recovery::class)->takeUp(), 'what goes on is not taken up');
        $third = app(Plans::class)->deploy($this->site, $this->package(['index.html' => 'third']));
        self::assertTrue(StartPlan::start($third, $this->person));
        $third->refresh();
        self::assertSame([DeploymentState::Waiting, $first->id], [$third->state, $third->waits_for_id], 'at once');
        $third->delete();
        $lock->release();
        self::assertSame(2, app(Recovery::class)->takeUp(true));
        self::assertTrue(app(Runner::class)->carryOut($second));
        self::assertSame(DeploymentState::Proven, $second->refresh()->state);
    }

    public function test_what_is_taken_up_is_ordered_once_also_where_a_second_passes_meanwhile(): void
    {
        $run = app(Plans::class)->deploy($this->site, $this->package());
        $run->update(['state' => DeploymentState::Running]);
        Queue::fake();
        $this->travelTo(now()->startOfSecond());
        // Once the forgotten were looked for, and before they are ordered.
        DB::listen(fn (QueryExecuted $query): mixed => str_contains($query->sql, '`updated_at` <=')
            ? $this->travel(1)->seconds()
            : null);

        self::assertSame(1, app(Recovery::class)->takeUp(true));
        Queue::assertPushed(RunTask::class, 1);
        self::assertSame(DeploymentState::Queued, $run->refresh()->state);
    }

    public function test_a_run_whose_person_is_closed_meanwhile_goes_on_as_theirs_and_says_so(): void
    {
        $helper = PersonBuilder::aHelper()->build();
        $run = app(Plans::class)->deploy($this->site, $this->package(), person: $helper);
        $run->update(['state' => DeploymentState::Queued]);
        $this->actingAs($this->person)
            ->post("/people/$helper->id/close", ['revision' => '0'])
            ->assertRedirect('/people');
        $this->app['auth']->forgetGuards(); // From here on it is a worker.

        self::assertTrue(app(Runner::class)->carryOut($run->fresh()));

        self::assertSame([DeploymentState::Proven, $helper->id], [$run->refresh()->state, $run->person_id]);
        $entry = RecordEntry::where('action', RecordKind::DeploymentProven)->firstOrFail();
        self::assertSame($helper->id, $entry->person_id);
        self::assertStringContainsString('begun by Wren Tideway, who was closed meanwhile', $entry->sentence);
        $this->actingAs($this->person)->get("/deployments/$run->id")->assertSee('by W. Tideway, who is closed');
    }

    public function test_the_job_signs_in_as_its_ftp_user_and_closes_it_at_the_end(): void
    {
        $user = $this->ftpUser('job', '/www/site.example');
        self::assertSame(FtpUserState::Open, $user->state, (string) $user->trouble);
        $run = app(Plans::class)->deploy($this->site, $this->package(), $user->load('account.sites'));
        $this->account->update(['secret' => 'no longer right']);
        $run->update(['state' => DeploymentState::Queued]);
        app(Runner::class)->carryOut($run);
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, 'it does not need the account itself');
        $user->refresh();
        self::assertSame([FtpUserState::Closed, null], [$user->state, $user->secret]);
        self::assertNotNull($user->used_at, 'its own job is a use');
        self::assertSame(
            'job@site.example: sign-in refused (530)',
            $user->proofs()->where('kind', 'refusal')->firstOrFail()->sentence,
        );
    }

    public function test_users_past_their_date_are_closed_and_one_that_cannot_be_is_a_concern(): void
    {
        $user = $this->ftpUser('job', '/www', Closing::AtTime, now()->addMinute());
        $this->artisan('cellarium:close-due');
        self::assertSame(FtpUserState::Open, $user->refresh()->state);
        $this->travel(2)->minutes();
        $this->account->update(['control_token' => 'an-old-token']);
        $this->artisan('cellarium:close-due');
        self::assertSame(FtpUserState::ClosingFailed, $user->refresh()->state);
        $concern = Concerns::compute()->all[0];
        self::assertSame('FTP user still open', $concern->title);
        self::assertStringContainsString('Reaches 1 site', $concern->evidence);
        $this->account->update(['control_token' => \Tests\Support\StandinHost::TOKEN]);
        $this->actingAs($this->person)->post("/ftp-users/$user->id/close")->assertRedirect();
        self::assertSame(FtpUserState::Closed, $user->refresh()->state);
    }

    public function test_a_package_goes_into_a_saved_destination_and_leaves_everything_beside_it_as_it_is(): void
    {
        $this->deployed();
        mkdir($this->root().'/blog');
        file_put_contents($this->root().'/blog/note.txt', 'not from us');
        $this->site->destinations()->create(['name' => 'journal', 'directory' => '/www/site.example/blog']);
        $before = self::contents($this->root());
        [$status, $report] = $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(
                ['index.html' => '<h1>Journal</h1>', 'old.html' => 'old', 'deep/a.css' => 'a'],
                'journal-1.0.zip',
            ),
            '--into=journal',
        );
        self::assertSame(
            [0, ['files' => 3, 'bytes' => 20, 'was' => 0], 0],
            [$status, $report['added'], $report['set_aside']['files']],
            json_encode($report, JSON_THROW_ON_ERROR),
        );
        self::assertSame($before, array_intersect_key(self::contents($this->root()), $before));
        self::assertSame('<h1>Journal</h1>', file_get_contents($this->root().'/blog/index.html'));
        self::assertSame('journal 1.0 into /www/site.example/blog', Deployment::latest('id')->firstOrFail()->title());
        self::assertStringContainsString(
            '/blog/',
            (string) json_encode(Deployment::latest('id')->firstOrFail()->proofs, JSON_UNESCAPED_SLASHES),
        );

        [, $main] = $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(['index.html' => '<h1>Newer</h1>'], 'stones-1.1.zip'),
        );
        self::assertSame(
            [1, 3],
            [$main['replaced']['files'], $main['set_aside']['files']],
            'what the site had before goes, the journal stays',
        );
        self::assertFileExists($this->root().'/blog/old.html');
        [, $again] = $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(['index.html' => '<h1>Journal</h1>'], 'journal-1.1.zip'),
            '--into=/www/site.example/blog',
        );
        self::assertSame([1, 2], [$again['same']['files'], $again['set_aside']['files']]);
        self::assertSame(
            ['index.html', 'note.txt'],
            array_map(basename(...), array_values(array_filter(glob($this->root().'/blog/*') ?: [], is_file(...)))),
        );
        self::assertStringContainsString(
            'does not lie in the document root',
            $this->artisanJson('deploy', 'site.example', $this->zip(), '--into=/mail')[1]['error'],
        );
        $this->actingAs($this->person)
            ->get('/deployments/new?site='.$this->site->id)
            ->assertSee('journal, /www/site.example/blog');
    }

    public function test_going_back_asks_about_each_file_that_somebody_changed_since(): void
    {
        $before = self::contents($this->root());
        $run = $this->deployed();
        file_put_contents($this->root().'/about.html', 'edited by hand');
        $this->actingAs($this->person)
            ->from("/deployments/$run->id")
            ->followingRedirects()
            ->post("/deployments/$run->id/undo")
            ->assertOk()
            ->assertSee('1 to answer')
            ->assertSee('Go back')
            ->assertSee('Leave it there');
        $back = Deployment::latest('id')->firstOrFail();
        self::assertSame(DeploymentState::Planned, $back->state);
        $this->post("/deployments/$back->id/start")->assertSessionHas('trouble');
        self::assertSame('edited by hand', file_get_contents($this->root().'/about.html'));
        $this->post("/deployments/$back->id/answers", ['scope' => 'about.html', 'choice' => 'theirs']);
        $this->post("/deployments/$back->id/start")->assertRedirect();
        self::assertSame(DeploymentState::Proven, $back->refresh()->state, (string) $back->trouble);
        self::assertSame('edited by hand', file_get_contents($this->root().'/about.html'));
        self::assertSame($before, array_diff_key(self::contents($this->root()), ['/about.html' => true]));
        $this->post("/deployments/$back->id/start")->assertSessionHas('trouble', 'This plan was started already.');
    }

    public function test_after_a_step_back_a_new_version_sets_aside_what_only_the_one_before_had(): void
    {
        file_put_contents($this->root().'/theirs.html', 'lay there before');
        $this->deployed(['index.html' => 'A', 'only-a.html' => 'A', 'css/only-a.css' => 'A']);
        $second = $this->deployed(['index.html' => 'B', 'only-b.html' => 'B']);
        $this->actingAs($this->person)->post("/deployments/$second->id/undo");
        $back = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$back->id/start");
        self::assertSame('A', file_get_contents($this->root().'/only-a.html'));

        $again = $this->deployed(['index.html' => 'B', 'only-b.html' => 'B']);

        self::assertFileDoesNotExist($this->root().'/only-a.html');
        self::assertFileDoesNotExist($this->root().'/css/only-a.css');
        self::assertSame('lay there before', file_get_contents($this->root().'/theirs.html'));
        $this->post("/backups/$again->backup_id/restore");
        $restored = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$restored->id/start");
        self::assertSame('A', file_get_contents($this->root().'/only-a.html'), (string) $restored->refresh()->trouble);
        $this->deployed(['index.html' => 'C']);
        self::assertFileDoesNotExist($this->root().'/only-a.html');
        self::assertSame('lay there before', file_get_contents($this->root().'/theirs.html'));
    }

    public function test_going_back_over_what_somebody_changed_since_has_theirs_in_its_own_backup(): void
    {
        $before = self::contents($this->root());
        $run = $this->deployed();
        file_put_contents($this->root().'/about.html', 'edited by hand');
        $this->actingAs($this->person)->post("/deployments/$run->id/undo");
        $back = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$back->id/answers", ['scope' => '', 'choice' => 'ours'])->assertRedirect();
        $this->post("/deployments/$back->id/start")->assertRedirect();
        self::assertSame(DeploymentState::Proven, $back->refresh()->state, (string) $back->trouble);
        self::assertSame($before, self::contents($this->root()));
        $this->post("/backups/$back->backup_id/restore", ['paths' => ['about.html']])->assertRedirect();
        $theirs = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$theirs->id/start");
        self::assertSame('edited by hand', file_get_contents($this->root().'/about.html'));
    }

    public function test_a_plan_that_no_longer_fits_the_server_is_made_anew_and_says_what_is_different(): void
    {
        $run = app(Plans::class)->deploy($this->site, $this->package());
        file_put_contents($this->root().'/new.txt', 'somebody was here');
        $before = self::contents($this->root());
        $this->actingAs($this->person)->post("/deployments/$run->id/start");
        $run->refresh();
        self::assertSame(DeploymentState::Planned, $run->state);
        self::assertSame($before, self::contents($this->root()));
        $this->get("/deployments/$run->id")
            ->assertSeeInOrder(['The server changed after this plan was made', '1 file new:', 'new.txt']);
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state);
        self::assertFileExists($this->root().'/new.txt');
    }

    public function test_today_speaks_of_placeholders_and_missing_backups(): void
    {
        $this->artisanJson('accounts');
        $this->actingAs($this->person)
            ->post("/accounts/{$this->account->id}/connect")
            ->assertRedirect();
        $this->get('/')
            ->assertOk()
            ->assertSee('Still the host’s placeholder page')
            ->assertSee('Visitors see default.htm from the host');
        unlink($this->root().'/default.htm');
        file_put_contents($this->root().'/index.html', 'a site of their own');
        $this->post("/accounts/{$this->account->id}/connect");
        $this->get('/')->assertSee('No backup yet')->assertDontSee('placeholder page');
        $this->post("/sites/{$this->site->id}/backups")->assertRedirect("/backups?site={$this->site->id}");
        $this->get('/')->assertSee('nothing just now');
        $this->travel(8)->days();
        $this->actingAs($this->person);
        $this->get('/')->assertSee('No backup for 8 days');
    }

    public function test_a_run_that_cannot_even_be_put_back_waits_for_a_person_where_trying_again_would_do_harm(): void
    {
        file_put_contents($this->root().'/about.html', 'the old about');
        touch($this->root().'/about.html', 1_700_000_000);
        $before = self::contents($this->root());
        $user = $this->ftpUser('job', '/www/site.example');
        $run = app(Plans::class)->deploy($this->site, $this->package(), $user->load('account.sites'));
        $run->update(['state' => DeploymentState::Queued]);
        // The user is closed behind our back as soon as names are being given.
        app(Runner::class)->carryOut($run, function (array $progress) use ($user): void {
            if ($progress['stage'] === 'replacing') {
                $this->host->control(
                    'PATCH',
                    '/v1/ftp-users/'.rawurlencode($user->login),
                    \Tests\Support\StandinHost::TOKEN,
                    ['open' => false],
                );
            }
        });
        $run->refresh();
        self::assertSame([DeploymentState::Unfinished, true], [$run->state, $run->held], (string) $run->trouble);
        self::assertStringContainsString('Mend that, then try again here', (string) $run->trouble);
        Queue::fake();
        self::assertSame(0, app(Recovery::class)->takeUp(true), 'a refused password is not tried again by itself');
        $this->actingAs($this->person)->get("/deployments/$run->id")->assertOk()->assertSee('Try again');
        $this->get('/')->assertSee('Not yet put back');

        $this->host->control(
            'PATCH',
            '/v1/ftp-users/'.rawurlencode($user->login),
            \Tests\Support\StandinHost::TOKEN,
            ['open' => true],
        );
        $this->post("/deployments/$run->id/again")->assertRedirect();
        self::assertOrdered(\App\Runs\CarryOutDeployment::class, $run->id);
        app(Runner::class)->carryOut($run);
        self::assertSame(DeploymentState::PutBack, $run->refresh()->state, (string) $run->trouble);
        self::assertSame($before, self::contents($this->root()));
    }

    public function test_the_record_only_grows_whoever_asks(): void
    {
        $this->deployed();
        $count = RecordEntry::count();
        self::assertGreaterThan(3, $count);
        foreach (['UPDATE record_entries SET sentence = "x"', 'DELETE FROM record_entries'] as $statement) {
            try {
                DB::statement($statement);
                self::fail('It was changed.');
            } catch (QueryException $refused) {
                self::assertStringContainsString('append-only', $refused->getMessage());
            }
        }
        self::assertSame($count, RecordEntry::count());
    }
}
