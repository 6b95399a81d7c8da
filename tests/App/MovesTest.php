<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Account;
use App\Models\Backup;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\ProofBy;
use App\Models\Site;
use App\Sheets\Sheets;
use Carbon\CarbonImmutable;
use Cellarium\Core\Hosting\LoginRules;
use Cellarium\Core\Sheet\SheetAccess;
use Tests\Support\StandinHost;

/** A whole account made anew at another host: sites with their history, destinations, FTP users. */
final class MovesTest extends AppTestCase
{
    private StandinHost $new;

    private Account $there;

    protected function setUp(): void
    {
        parent::setUp();
        $this->new = new StandinHost([
            'login' => 'quay',
            'sites' => [
                ['domain' => 'site.example', 'document_root' => '/htdocs/site'],
                ['domain' => 'kept.example', 'document_root' => '/htdocs/kept'],
            ],
        ]);
        $this->there = $this->account->client->accounts()->create([
            'company' => 'Quayside',
            'host' => StandinHost::HOST,
            'port' => $this->new->ftpPort,
            'protocol' => 'ftp', // Each stand-in has an authority of its own, of the same name.
            'login' => 'quay',
            'secret' => StandinHost::PASSWORD,
            'control_url' => "http://127.0.0.1:{$this->new->controlPort}",
            'control_token' => StandinHost::TOKEN,
            'login_rules' => LoginRules::fromForm('{name}@site.example')->toArray(),
        ]);
        $this->there->sites()->create([
            'domain' => 'kept.example',
            'base_url' => "http://kept.example:{$this->new->webPort}",
            'document_root' => '/htdocs/kept',
            'start_pages' => ['index.html'],
            'kept' => [],
        ]);
        $this->actingAs($this->person);
    }

    protected function tearDown(): void
    {
        isset($this->new) && $this->new->stop();
        parent::tearDown();
    }

    private function newRoot(): string
    {
        return "{$this->new->directory}/homes/quay/htdocs/site";
    }

    /** @param  array<string, mixed>  $with */
    private function make(array $with = []): \Illuminate\Testing\TestResponse
    {
        return $this->post("/accounts/{$this->account->id}/anew", $with + [
            'to' => (string) $this->there->id,
            'sites' => [(string) $this->site->id],
            'users' => FtpUser::pluck('id')->map(strval(...))->all(),
            'directories' => [$this->site->id => '/htdocs/site'],
        ]);
    }

    public function test_a_site_goes_with_its_history_its_destinations_and_its_users_and_is_filled_by_a_plan(): void
    {
        mkdir($this->root().'/img');
        $user = $this->ftpUser('designer', '/www/site.example/img');
        $this->site->destinations()->create(['name' => 'pictures', 'directory' => '/www/site.example/img']);
        $first = $this->deployed();
        $second = $this->deployed(['index.html' => '<h1>Newer</h1>', 'img/a.txt' => 'a']);
        [, $backup] = $this->artisanJson('backup', 'site.example');
        $old = self::contents($this->root());
        $page = "/accounts/{$this->account->id}/anew?to={$this->there->id}";
        $this->get($page)->assertOk()->assertSee('site.example')->assertSee('designer')->assertSee('backup of');
        $this->make()->assertRedirect($page)->assertSessionHas('done');

        $site = Site::with('account')->findOrFail($this->site->id);
        self::assertSame([$this->there->id, '/htdocs/site'], [$site->account_id, $site->document_root]);
        self::assertNull($site->root_proven_at);
        self::assertSame('/htdocs/site/img', $site->destinations()->firstOrFail()->directory);
        self::assertSame($old, self::contents($this->root()), 'nothing is touched at the old host');
        $plan = Deployment::latest('id')->firstOrFail();
        self::assertSame($backup['id'], $plan->from_backup_id);
        self::assertSame(DeploymentState::Planned, $plan->state);
        $this->get($page)->assertOk()->assertSee('There already')->assertSee('not proven');

        // The name still leads to the old host, and the new one was asked for it in vain: the server alone is asked.
        $this->get("/deployments/$plan->id")->assertOk()->assertSee('read back from the server to the last byte');
        $this->get('/')->assertOk()->assertSee('Not filled at its new host');
        $this->get($page)->assertSee('Start the plan that waits');
        $this->post("/accounts/{$this->account->id}/anew/start", ['to' => (string) $this->there->id])
            ->assertRedirect($page)
            ->assertSessionHas('done', '1 plan started.');
        self::assertSame(DeploymentState::Proven, $plan->refresh()->state, (string) $plan->trouble);
        self::assertSame($old, self::contents($this->newRoot()));
        self::assertSame([[], count(array_filter($old)), ProofBy::ReadingBack], [
            $plan->proofs,
            $plan->read_back,
            $plan->proof_by,
        ]);
        self::assertNull($site->refresh()->live_proven_at);
        $this->get("/deployments/$plan->id")->assertSee('Visitors were not')->assertSee('Ask as visitors do');
        $this->get($page)->assertSee('read back, visitors not asked');
        $this->get('/')->assertSee('Read back, visitors not asked');

        $sheet = app(Sheets::class)->of(
            $this->account->client,
            $site,
            CarbonImmutable::now()->subDay(),
            CarbonImmutable::now(),
            'UTC',
        );
        self::assertSame(
            [
                'harbour' => true,
                $user->login => false,
                'quay' => false,
                'designer@site.example' => false,
            ],
            array_column(
                array_map(
                    static fn (SheetAccess $one): array => [$one->login, $one->closedAt !== null],
                    $sheet->signed()->sheet->access,
                ),
                1,
                0,
            ),
            'who could touch it, at both hosts',
        );

        // What the old host shows is no proof of the new one.
        $this->post("/deployments/$plan->id/prove")->assertSessionHas('trouble');
        self::assertSame([[], null], [$plan->refresh()->proofs, $site->refresh()->live_proven_at]);
        $this->travel(2)->seconds();
        $this->get("/sites/$site->id/over-time.csv?days=1")
            ->assertSee('The token in /htdocs/site was not found')
            ->assertSee('read back only')
            ->assertSee('harbour, the account then')
            ->assertSee('quay, the account"', false)
            ->assertSee("$user->login, proven")
            ->assertSee('designer@site.example, proven');

        // The name leads to the new host from here on.
        $site->update(['base_url' => "http://site.example:{$this->new->webPort}"]);
        $this->post("/deployments/$plan->id/prove")->assertSessionHas('done');
        self::assertNotNull($site->refresh()->live_proven_at);
        self::assertFalse($site->leads_elsewhere);
        self::assertNotSame([], $plan->refresh()->proofs);
        $this->post("/deployments/$plan->id/prove")->assertSessionHas('trouble');
        $this->get('/')->assertDontSee('visitors not asked');
        $this->post("/accounts/{$this->account->id}/anew/start", ['to' => (string) $this->there->id])
            ->assertSessionHas('trouble');

        $made = FtpUser::where('account_id', $this->there->id)->firstOrFail();
        self::assertSame([FtpUserState::Open, '/htdocs/site/img'], [$made->state, $made->directory]);
        self::assertNotSame($user->secret, $made->secret);
        self::assertSame(FtpUserState::Open, $user->refresh()->state);

        // Its history is of use there: what was deployed before can be brought back.
        $this->post("/backups/$second->backup_id/restore")->assertRedirect();
        $back = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$back->id/start");
        self::assertSame(DeploymentState::Proven, $back->refresh()->state, (string) $back->trouble);
        self::assertSame('about', file_get_contents($this->newRoot().'/about.html'), "as run $first->id left it");
    }

    public function test_what_cannot_be_made_is_said_and_the_rest_is_made(): void
    {
        $this->ftpUser('designer', '/www/site.example');
        $this->make(['directories' => [$this->site->id => '/htdocs/kept/inside']])->assertSessionHas('trouble');
        self::assertSame($this->account->id, $this->site->refresh()->account_id);
        self::assertSame(0, FtpUser::where('account_id', $this->there->id)->count());
        $this->make()->assertSessionHas('trouble');
        self::assertSame($this->account->id, $this->site->refresh()->account_id, 'there is no backup to fill it from');
        self::assertSame(0, FtpUser::where('account_id', $this->there->id)->count());
        $this->artisanJson('backup', 'site.example');
        $this->make()->assertSessionHas('done');
        self::assertSame($this->there->id, $this->site->refresh()->account_id);
        $this->make()->assertSessionHas('done');
        self::assertSame(1, Deployment::where('kind', 'restore_backup')->count());
        self::assertSame(1, FtpUser::where('account_id', $this->there->id)->count());
    }

    public function test_what_the_site_was_known_to_hold_is_forgotten_and_an_empty_host_is_no_question(): void
    {
        $this->deployed();
        $this->make()->assertSessionHas('done');
        $plan = Deployment::latest('id')->firstOrFail();
        self::assertSame(DeploymentState::Planned, $plan->state, (string) $plan->trouble);
        self::assertNull($plan->question);
    }

    public function test_where_it_was_killed_between_moving_and_filling_the_page_says_that_no_plan_is_there(): void
    {
        [, $backup] = $this->artisanJson('backup', 'site.example');
        $this->actingAs($this->person);
        $this->site->update([
            'account_id' => $this->there->id,
            'document_root' => '/htdocs/site',
        ]);
        $this->site->stays()->create([
            'account_id' => $this->account->id,
            'root' => '/www/site.example',
            'until' => now(),
        ]);
        $this->get("/accounts/{$this->account->id}/anew?to={$this->there->id}")
            ->assertSee('There already')
            ->assertSee('no plan yet: bring a backup back');
        $this->post("/backups/{$backup['id']}/restore")->assertRedirect();
        self::assertSame(DeploymentState::Planned, Deployment::latest('id')->firstOrFail()->state);
    }

    public function test_an_account_of_another_client_is_refused_and_so_is_one_where_work_goes_on(): void
    {
        $backup = $this->artisanJson('backup', 'site.example')[1]['id'];
        self::assertNotNull(Backup::find($backup));
        $other = Client::create(['name' => 'Kelpie Boatyard', 'colour' => '#123456']);
        $this->there->update(['client_id' => $other->id]);
        $this->make()->assertSessionHas('trouble');
        $this->there->update(['client_id' => $this->account->client_id]);
        Deployment::create([
            'site_id' => $this->site->id,
            'kind' => 'deploy',
            'state' => DeploymentState::Running,
            'policy' => [],
            'counts' => [],
        ]);
        $this->make()->assertSessionHas('trouble');
        self::assertSame($this->account->id, $this->site->refresh()->account_id);
    }
}
