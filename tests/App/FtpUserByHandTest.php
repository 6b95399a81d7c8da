<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use App\Models\Proof;
use App\Watch\Upkeep;
use Cellarium\Core\Hosting\InstructionSheet;
use Cellarium\Core\Path\RemotePath;
use Tests\Support\Builder\PersonBuilder;
use Tests\Support\StandinHost;

/** Where a host has no control service, a person does it there from a sheet, and it counts when it is proven. */
final class FtpUserByHandTest extends FtpUserTestCase
{
    private function byHand(): FtpUser
    {
        $this->account->update(['control_url' => null, 'company' => 'Northquay']);

        return $this->ftpUser(space: 3_000_000);
    }

    public function test_it_waits_for_a_person_and_nobody_knocks_before_they_say_it_is_done(): void
    {
        $user = $this->byHand();
        self::assertSame([FtpUserState::Asked, PendingAction::Create], [$user->state, $user->action()]);
        self::assertSame('Create job@site.example', $this->users()->sheet($user)?->title);
        $attempts = Proof::count();
        app(Upkeep::class)->order();
        self::assertSame($attempts, Proof::count());
    }

    public function test_its_password_is_shown_to_maintainers_who_have_just_shown_that_it_is_them(): void
    {
        $user = $this->byHand();
        $password = (string) $this->users()->sheet($user)?->password?->reveal();
        $page = "/ftp-users/$user->id";

        $this->actingAs($this->person)->get($page)->assertOk()->assertSee($password);
        $this->withSession(['fresh_at' => 0])->get($page)->assertDontSee($password)->assertSee("$page/sheet");
        $this->get("$page/sheet")->assertRedirect('/sign-in/again');
        $this->post('/sign-in/again', ['password' => PersonBuilder::PASSWORD])->assertRedirect("$page/sheet");
        $this->get("$page/sheet")->assertRedirect("$page#sheet");
        $this->get($page)->assertSee($password);

        $this->actingAs(PersonBuilder::aHelper()->build())
            ->get($page)
            ->assertDontSee($password)
            ->assertSee('a maintainer sees it here');
    }

    public function test_what_is_said_to_be_done_and_is_not_stays_to_be_done(): void
    {
        $user = $this->byHand();
        self::assertFalse($this->users()->settle($user));
        self::assertStringContainsString('not done at the provider yet', (string) $user->trouble);
    }

    public function test_what_was_done_wrongly_keeps_its_sheet_until_it_is_right(): void
    {
        $user = $this->byHand();
        $sheet = $this->users()->sheet($user);
        $this->host->makeFtpUser('job', (string) $sheet?->password?->reveal(), '/www');
        self::assertFalse($this->users()->settle($user));
        self::assertStringContainsString('Landed elsewhere', (string) $user->trouble);
        self::assertSame(PendingAction::Create, $user->action());

        $this->host->changeFtpUser('job', ['directory' => $sheet->fields['Directory']]);
        $this->settled($user);
        self::assertSame([FtpUserState::Open, null], [$user->state, $this->users()->sheet($user)]);
    }

    public function test_a_closing_is_found_out_by_itself_in_the_end(): void
    {
        $user = $this->ftpUser();
        $this->account->update(['control_url' => null]);
        $user = $this->fresh($user);
        self::assertFalse($this->users()->close($user, 'by hand'));
        self::assertSame('Close job@site.example', $this->users()->sheet($user)?->title);
        self::assertFalse($this->users()->settle($user));
        self::assertSame(
            [FtpUserState::Open, true],
            [$user->state, str_contains((string) $user->trouble, 'can still sign in')],
        );
        $this->host->changeFtpUser('job', ['open' => false]);
        $this->later(120);
        self::assertSame(FtpUserState::Closed, $user->refresh()->state);
    }

    public function test_one_that_was_never_made_can_be_given_up(): void
    {
        $user = $this->byHand();
        $this->users()->giveUp($user);
        self::assertNull(FtpUser::find($user->id));
    }

    public function test_by_hand_every_change_has_its_sheet_and_is_true_when_proven(): void
    {
        $user = $this->ftpUser();
        mkdir($this->root().'/media');
        $this->account->update(['control_url' => null]);
        $user = $this->fresh($user);
        // What the person does at the provider, from what the sheet says.
        $does = fn (array $change) => $this->host->changeFtpUser('job', $change);
        $steps = [
            'Give job@site.example another password' => [
                fn () => $this->users()->renew($user),
                fn (InstructionSheet $sheet) => $does(['password' => $sheet->password?->reveal()]),
            ],
            'Change job@site.example' => [
                fn () => $this->users()->change(
                    $user,
                    RemotePath::fromString('/www/site.example/media'),
                    true,
                    2_000_000,
                ),
                fn (InstructionSheet $sheet) => $does([
                    'directory' => $sheet->fields['Directory'],
                    'space_limit' => (int) $sheet->fields['Space limit'] * 1_000_000,
                ]),
            ],
            'Close job@site.example' => [
                fn () => $this->users()->close($user, 'by hand'),
                fn () => $does(['open' => false]),
            ],
            'Open job@site.example again' => [
                fn () => $this->users()->reopen($user, Closing::WithJob, null),
                fn (InstructionSheet $sheet) => $does(['open' => true, 'password' => $sheet->password?->reveal()]),
            ],
            'Remove job@site.example' => [
                fn () => $this->users()->remove($user),
                fn () => $this->host->control('DELETE', '/v1/ftp-users/job@site.example', StandinHost::TOKEN),
            ],
        ];
        foreach ($steps as $title => [$wants, $do]) {
            $wants();
            $sheet = $this->users()->sheet($user);
            self::assertSame($title, $sheet?->title);
            self::assertFalse($this->users()->settle($user), "$title: not done yet");
            $do($sheet);
            self::assertTrue($this->users()->settle($user), "$title: $user->trouble");
            self::assertNull($user->refresh()->action(), $title);
        }
        self::assertSame(
            [FtpUserState::Removed, '/www/site.example/media', 2_000_000],
            [$user->state, $user->directory, $user->space_limit],
        );
    }
}
