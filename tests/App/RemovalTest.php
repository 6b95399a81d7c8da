<?php

declare(strict_types=1);

namespace Tests\App;

use App\FtpUsers\FtpUsers;
use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Client;
use App\Models\Closing;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use App\Removal\Removal;
use App\Watch\Cleaner;
use Cellarium\Core\Backup\BackupShelf;
use Tests\Support\Builder\SiteBuilder;

/** Clients, accounts and sites leave Cellarium with all that belongs to them, and come back within their time. */
final class RemovalTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->person);
    }

    /** @param  array<int, string>  $users */
    private function remove(string $what, array $users = [], int $keep = 30): string
    {
        return (string) $this->followingRedirects()
            ->post("/removals/$what", ['users' => $users, 'keep' => $keep])
            ->assertOk()
            ->getContent();
    }

    public function test_what_goes_with_an_account_is_shown_before_it_goes(): void
    {
        $this->deployed();
        $this->ftpUser('desk', '/www/site.example', Closing::AtTime, now()->addDay());

        $this->get("/removals/accounts/{$this->account->id}")
            ->assertOk()
            ->assertSee('Nothing is removed at the host')
            ->assertSee('desk@')
            ->assertSee('close it first')
            ->assertSee('href="/sites/'.$this->site->id.'"', false)
            ->assertSee('1, ');
        self::assertSame(1, Account::count(), 'looking removes nothing');
    }

    public function test_an_open_user_is_closed_and_proven_closed_first(): void
    {
        $user = $this->ftpUser('desk', '/www/site.example', Closing::AtTime, now()->addDay());

        $this->remove("accounts/{$this->account->id}", [$user->id => 'close']);

        self::assertSame([0, 0], [Account::count(), Site::count()]);
        self::assertSame(FtpUserState::Closed, $user->refresh()->state);
        self::assertNotNull($user->refusal_proven_at);
    }

    public function test_nothing_goes_while_a_user_that_was_to_be_closed_can_still_sign_in(): void
    {
        $user = $this->ftpUser('desk', '/www/site.example', Closing::AtTime, now()->addDay());
        $this->host->faults(['close_never' => true]);

        $page = $this->remove("accounts/{$this->account->id}", [$user->id => 'close']);

        self::assertStringContainsString('Nothing was removed', $page);
        self::assertSame([1, 1], [Account::count(), Site::count()]);
    }

    public function test_a_user_nobody_decided_about_keeps_everything_as_it_is(): void
    {
        $this->ftpUser('desk', '/www/site.example', Closing::AtTime, now()->addDay());

        $page = $this->remove("accounts/{$this->account->id}");

        self::assertStringContainsString('nobody said what becomes of it', $page);
        self::assertSame(1, Account::count());
    }

    public function test_a_user_that_is_left_open_knowingly_is_named_in_the_record_and_closes_at_its_time_still(): void
    {
        $user = $this->ftpUser('desk', '/www/site.example', Closing::AtTime, now()->addHour());

        $this->remove("accounts/{$this->account->id}", [$user->id => 'leave']);

        self::assertStringContainsString(
            'Left open knowingly: desk@',
            RecordEntry::where('action', RecordKind::Removed)->firstOrFail()->sentence,
        );
        $this->get('/ftp-users')->assertOk()->assertDontSee('desk@');
        $this->travel(2)->hours();
        $this->artisan('cellarium:close-due');
        self::assertSame(FtpUserState::Closed, $user->refresh()->state);
    }

    public function test_what_was_removed_is_in_no_list_and_its_page_says_so(): void
    {
        $run = $this->deployed();

        $this->remove("sites/{$this->site->id}");

        foreach (['/', '/accounts', '/?as=table', '/find?q=site.example'] as $page) {
            $this->get($page)->assertOk()->assertDontSee('href="/sites/'.$this->site->id.'"', false);
        }
        $this->followingRedirects()->get("/sites/{$this->site->id}")->assertOk()->assertSee('Undo the removal');
        $this->get("/deployments/$run->id")->assertOk()->assertSee('site.example', false);
        $this->get('/record')->assertOk()->assertSee('Removed site site.example');
    }

    public function test_undoing_brings_back_just_what_went_with_it(): void
    {
        $other = SiteBuilder::aSite('other.example')->on($this->account)->from('/www/other.example')->build();
        $this->remove("sites/$other->id");
        $this->travel(1)->minutes();
        $this->remove("clients/{$this->account->client_id}");
        self::assertSame([0, 0, 0], [Client::count(), Account::count(), Site::count()]);

        $this->followingRedirects()->post("/removals/clients/{$this->account->client_id}/undo")->assertOk();

        self::assertSame(['site.example'], Site::pluck('domain')->all(), 'the other had been removed before');
        self::assertSame([1, 1], [Client::count(), Account::count()]);
    }

    public function test_a_domain_that_is_in_use_again_is_not_brought_back_over_it(): void
    {
        $this->remove("sites/{$this->site->id}");
        SiteBuilder::aSite('site.example')->on($this->account)->from('/www/elsewhere')->build();

        $this->followingRedirects()
            ->post("/removals/sites/{$this->site->id}/undo")
            ->assertSee('Its name is in use again');

        self::assertSame(['/www/elsewhere'], Site::pluck('document_root')->all());
    }

    public function test_after_its_time_secrets_are_erased_and_it_does_not_come_back(): void
    {
        $this->remove("accounts/{$this->account->id}", keep: 365);
        $this->travel(Removal::DAYS + 1)->days();
        $this->actingAs($this->person);

        app(Cleaner::class)->clean();

        $account = Account::withTrashed()->findOrFail($this->account->id);
        self::assertSame(['', null, null], [$account->secret, $account->private_key, $account->control_token]);
        $this->followingRedirects()
            ->post("/removals/accounts/{$this->account->id}/undo")
            ->assertSee('its secrets are erased');
        self::assertSame(0, Account::count());
    }

    public function test_backups_stay_for_the_time_that_was_chosen(): void
    {
        $backup = Backup::findOrFail($this->deployed()->backup_id);
        $this->remove("sites/{$this->site->id}", keep: 90);

        $this->travel(89)->days();
        app(Cleaner::class)->clean();
        self::assertSame(BackupState::Verified, $backup->refresh()->state);
        foreach ([1, 2] as $ignored) {
            $this->travel(1)->days();
            app(Cleaner::class)->clean();
        }

        self::assertSame(BackupState::Expired, $backup->refresh()->state);
        self::assertSame([], app(BackupShelf::class)->names());
    }

    public function test_nothing_is_removed_while_a_deployment_is_at_work(): void
    {
        $run = $this->deployed();
        Deployment::whereKey($run->id)->update(['state' => DeploymentState::Running]);

        $page = $this->remove("sites/{$this->site->id}");

        self::assertStringContainsString('A deployment or a backup is at work there', $page);
        self::assertSame(1, Site::count());
    }

    public function test_a_removed_site_is_neither_deployed_to_nor_restored(): void
    {
        $run = $this->deployed();
        $this->remove("sites/{$this->site->id}");

        $this->post('/deployments', ['site' => $this->site->id, 'package' => $run->package_id])->assertInvalid('site');
        foreach (["/backups/$run->backup_id/restore", "/deployments/$run->id/undo"] as $way) {
            $this->followingRedirects()->post($way)->assertSee('is removed from Cellarium');
        }
        self::assertSame(1, Deployment::count());
    }

    public function test_a_site_asks_only_about_users_that_reach_nothing_else(): void
    {
        $only = $this->ftpUser('only', '/www/site.example');
        SiteBuilder::aSite('other.example')->on($this->account)->from('/www/other.example')->build();
        $both = app(FtpUsers::class)->open(
            Account::with('client', 'sites')->findOrFail($this->account->id),
            new \App\FtpUsers\NewFtpUser('both', \Cellarium\Core\Path\RemotePath::fromString('/www')),
        );

        $this->get("/removals/sites/{$this->site->id}")
            ->assertSee("users[$only->id]", false)
            ->assertDontSee("users[$both->id]", false);
        self::assertSame(2, FtpUser::count());
    }
}
