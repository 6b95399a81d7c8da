<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use App\Models\Closing;
use App\Models\Destination;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use Tests\Support\StandinHost;

/** What the pages of an FTP user show and do. */
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

    private function made(): FtpUser
    {
        $this->post("/accounts/{$this->account->id}/ftp-users", [
            'name' => 'north',
            'directory' => '/www/site.example',
            'password_kind' => 'random',
            'ends' => 'job',
            'purpose' => 'pictures',
            'megabytes' => '3',
        ])->assertRedirect();

        return FtpUser::firstOrFail();
    }

    public function test_the_form_says_the_whole_login_and_how_good_a_password_is(): void
    {
        $this->look();
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
    }

    public function test_made_in_the_form_its_page_shows_every_step_of_its_proof(): void
    {
        $this->look();
        $user = $this->made();
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
    }

    public function test_its_directory_and_space_are_changed_on_its_page(): void
    {
        mkdir($this->root().'/media');
        $this->look();
        $user = $this->made();
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
    }

    public function test_its_closing_is_moved_and_never_needs_a_reason(): void
    {
        $user = $this->ftpUser();
        $this->post("/ftp-users/$user->id/closing", ['ends' => 'never', 'reason' => ''])->assertSessionHas('trouble');
        $this->post("/ftp-users/$user->id/closing", [
            'ends' => 'never',
            'reason' => 'the till writes every night',
        ])->assertRedirect();
        self::assertSame(
            [Closing::Never, 'never: the till writes every night'],
            [$user->refresh()->ends, $user->endsWords()],
        );
    }

    public function test_it_is_closed_opened_again_and_removed_on_its_page(): void
    {
        $user = $this->ftpUser();
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
}
