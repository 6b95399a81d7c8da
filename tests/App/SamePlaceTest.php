<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use App\Backups\Backups;
use App\Backups\TwoMoments;
use App\Files\CarryOutByHand;
use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FileAction;
use App\Models\FtpUser;
use App\Models\RecordEntry;
use App\Models\SharedDirectory;
use App\Models\Site;
use App\Plans\Plans;
use App\Reach\FleetScopes;
use App\Runs\Runner;
use App\Storage\SiteLockNames;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\LoginScope;
use Cellarium\Core\Reach\Reach;
use Cellarium\Core\Storage\Locks;
use Tests\Support\Builder\SiteBuilder;

/** Two logins that have one directory are one place: its turn, its drift, its reach. */
final class SamePlaceTest extends AppTestCase
{
    private Account $jailed;

    private Site $mirror;

    protected function setUp(): void
    {
        parent::setUp();
        $user = $this->ftpUser('mirror');
        $this->jailed = $this->account->replicate(['in_use'])->fill([
            'login' => $user->login,
            'label' => 'shut into the site',
            'secret' => $user->secret,
            'control_url' => null,
            'control_token' => null,
        ])->bindSecrets();
        $this->jailed->save();
        // Made at the host by somebody else: nothing but a token can tell.
        FtpUser::query()->delete();
        $this->mirror = SiteBuilder::aSite('mirror.example')
            ->on($this->jailed)
            ->with(['base_url' => $this->site->base_url])
            ->build();
    }

    private function prove(Site $site): void
    {
        $step = app(AccountCheck::class)->proveRoot($site->load('account.sites', 'account.ftpUsers'));
        self::assertTrue($step->ok, $step->sentence);
    }

    private function back(string $domain): Backup
    {
        [$status, $said] = $this->artisanJson('backup', $domain);
        self::assertSame(0, $status, json_encode($said, JSON_THROW_ON_ERROR));

        return Backup::latest('id')->firstOrFail();
    }

    public function test_the_proof_of_a_root_finds_who_else_has_it(): void
    {
        self::assertNotContains('site|mirror.example', SiteLockNames::forSite($this->site));
        $this->prove($this->site);
        self::assertSame(
            [[$this->account->id, '/www/site.example', '/'], [$this->jailed->id, '/', '/www/site.example']],
            SharedDirectory::orderBy('id')
                ->get()
                ->map(static fn (SharedDirectory $one): array => [$one->account_id, $one->path, $one->other_path])
                ->all(),
        );
        self::assertNull($this->site->refresh()->token);
        self::assertSame([], glob($this->root().'/cellarium-*') ?: [], 'no token stays');
        $this->actingAs($this->person);
        foreach ([$this->site, $this->mirror] as $site) {
            $this->get("/sites/$site->id")->assertOk()->assertSee('Also reached');
            $this->get("/accounts/$site->account_id")->assertOk()->assertSee('also reached as');
        }
        // Once more from the other side: the same, and the record says it once.
        $this->prove($this->mirror);
        self::assertSame(2, SharedDirectory::count());
        self::assertSame(1, RecordEntry::where('sentence', 'like', '%one place%')->count());
    }

    public function test_its_work_takes_turns(): void
    {
        $this->prove($this->site);
        $this->mirror->load('account.sites');
        $this->site->load('account.sites');
        foreach ([
            'site and site' => [SiteLockNames::forSite($this->site), SiteLockNames::forSite($this->mirror)],
            'site and account' => [SiteLockNames::forSite($this->site), SiteLockNames::ofAccount($this->jailed)],
            'account and site' => [SiteLockNames::ofAccount($this->account), SiteLockNames::forSite($this->mirror)],
        ] as $which => [$one, $other]) {
            $held = app(Locks::class)->acquire(...$one);
            self::assertNotNull($held);
            self::assertNull(app(Locks::class)->acquire(...$other), $which);
            $held->release();
        }
        $beside = SiteBuilder::aSite('other.example')->on($this->account)->from('/www/other.example')->build();
        self::assertSame(
            [],
            array_intersect(SiteLockNames::forSite($beside->load('account')), SiteLockNames::forSite($this->mirror)),
            'what lies beside it does not wait',
        );
    }

    public function test_whatever_is_done_through_one_waits_for_what_goes_on_through_the_other(): void
    {
        $this->prove($this->site);
        $going = app(Plans::class)->deploy($this->site, $this->package());
        $going->update(['state' => DeploymentState::Running]);
        $run = app(Plans::class)->deploy($this->mirror, $this->package());
        $run->update(['state' => DeploymentState::Queued]);
        $backup = Backup::create([
            'site_id' => $this->mirror->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Taking,
        ]);
        $held = app(Locks::class)->acquire(...SiteLockNames::forSite($this->site->load('account.sites')));
        self::assertNotNull($held);
        self::assertFalse(app(Runner::class)->carryOut($run));
        self::assertSame($going->id, $run->refresh()->waits_for_id);
        self::assertFalse(app(Backups::class)->take($backup));
        foreach ([$this->mirror->id, null] as $site) {
            $change = ChangeByHand::create([
                'account_id' => $this->jailed->id,
                'site_id' => $site,
                'action' => FileAction::Rename,
                'state' => ChangeState::Waiting,
                'directory' => '/',
                'title' => 'rename a file',
                'asked' => [],
                'steps' => [],
            ]);
            self::assertSame(ChangeState::Refused, app(CarryOutByHand::class)->carryOut($change)->state);
        }
        $held->release();
    }

    public function test_what_was_done_through_one_is_no_drift_of_the_other(): void
    {
        $this->travelTo(now()->subDays(2));
        $this->deployed(['index.html' => 'one', 'prices.html' => 'prices']);
        $this->prove($this->site);
        $first = $this->back('mirror.example');
        self::assertSame(2, $first->files);
        $this->travel(1)->hours();
        $run = $this->deployed(['index.html' => 'two', 'prices.html' => 'prices']);
        $this->travel(1)->hours();
        $second = $this->back('mirror.example');
        $this->travel(1)->hours();
        self::assertNull($second->drift);
        $differences = app(TwoMoments::class)->between($this->mirror, $first, $second);
        self::assertSame(['index.html'], array_column($differences, 'path'));
        self::assertSame("/deployments/$run->id", $differences[0]->who['page'] ?? null);
        $this->actingAs($this->person)->get("/sites/{$this->mirror->id}/over-time")->assertSee("/deployments/$run->id");

        file_put_contents($this->root().'/prices.html', 'of somebody else');
        self::assertSame(['prices.html'], array_keys($this->back('mirror.example')->drift['files'] ?? []));
        self::assertNull($this->back('site.example')->drift, 'told once');
        [$status, $said] = $this->artisanJson(...[
            'deploy',
            'mirror.example',
            $this->zip(['index.html' => 'three']),
            '--on-conflict=put',
            '--reason=the same place',
        ]);
        self::assertSame(0, $status, json_encode($said, JSON_THROW_ON_ERROR));
        self::assertSame($run->id, Deployment::latest('id')->firstOrFail()->compared_with_id);
        self::assertSame(DeploymentState::Proven, Deployment::latest('id')->firstOrFail()->state);
    }

    public function test_who_reaches_it_through_one_reaches_the_site_of_the_other(): void
    {
        $this->prove($this->site);
        self::assertSame(['site.example'], array_column($this->account->places(), 'domain'));
        $this->mirror->update(['client_id' => Client::create(['name' => 'Another', 'colour' => '#225577'])->id]);
        $reach = fn (string $directory): array => array_column(
            Reach::fromDirectory(RemotePath::fromString($directory), $this->account->refresh()->places())->touched(),
            'domain',
        );
        self::assertSame(['site.example', 'mirror.example'], $reach('/www'));
        self::assertSame([], $reach('/www/other.example'));
        mkdir($this->root().'/css');
        $this->ftpUser('deeper', '/www/site.example/css');
        $scopes = FleetScopes::scopes()->logins;
        self::assertSame([['site.example', 'mirror.example']], array_map(
            static fn (LoginScope $scope): array => array_column($scope->reach->touched(), 'domain'),
            $scopes,
        ));
        $part = $this->mirror->replicate()->fill(['domain' => 'part.example', 'document_root' => '/css']);
        $part->save();
        self::assertContains('part.example', $reach('/www/site.example'));
        self::assertNotContains('part.example', $reach('/www/site.example/img'));
    }

    public function test_it_is_forgotten_where_it_is_no_longer_seen_and_kept_where_nobody_could_look(): void
    {
        $this->prove($this->site);
        $password = $this->jailed->secret;
        $this->jailed->fill(['secret' => 'wrong'])->save();
        $this->prove($this->site);
        self::assertSame(2, SharedDirectory::count(), 'it could not be asked');
        self::assertTrue($this->jailed->refresh()->doesNotConnect(), 'its password is not tried with each root');
        $this->jailed->fill(['secret' => $password, 'trouble' => null])->save();
        $elsewhere = $this->ftpUser('elsewhere', '/www/other.example');
        $this->jailed->fill(['login' => $elsewhere->login, 'secret' => $elsewhere->secret])->bindSecrets();
        $this->jailed->saveQuietly();
        $this->prove($this->site);
        self::assertSame(0, SharedDirectory::count(), 'the token was looked for and not there');

        $again = $this->ftpUser('again');
        $this->jailed->fill(['login' => $again->login, 'secret' => $again->secret])->bindSecrets()->saveQuietly();
        $this->prove($this->site);
        self::assertSame(2, SharedDirectory::count());
        $this->jailed->fill(['login' => 'another'])->save();
        self::assertSame(0, SharedDirectory::count(), 'of another login nothing is known');
    }
}
