<?php

declare(strict_types=1);

namespace Tests\App;

use App\FtpUsers\FtpUsers;
use App\FtpUsers\NewFtpUser;
use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use App\Models\PendingChange;
use App\Models\Proof;
use App\Watch\Upkeep;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\RemotePath;

/** Whatever is killed or lost in between: what is true at the host is found out and nothing is claimed before. */
final class FtpUserRecoveryTest extends FtpUserTestCase
{
    private function asked(string $name): FtpUser
    {
        return $this->account->ftpUsers()->create([
            'login' => "$name@site.example",
            'directory' => '/www/site.example',
            'state' => FtpUserState::Asked,
            'next_secret' => 'the-Password-4711',
            'pending' => PendingChange::create($name),
            'ends' => Closing::WithJob,
        ]);
    }

    public function test_killed_before_the_answer_one_that_was_made_is_found_and_proven(): void
    {
        $asked = $this->asked('job');
        $this->host->makeFtpUser('job', 'the-Password-4711', '/www/site.example');
        $this->later();
        self::assertSame([FtpUserState::Open, 'the-Password-4711'], [$asked->refresh()->state, $asked->secret]);
    }

    public function test_killed_before_it_was_made_one_of_somebody_else_is_not_taken_for_ours(): void
    {
        $asked = $this->asked('theirs');
        $this->host->makeFtpUser('theirs');
        $this->later();
        self::assertNull(FtpUser::find($asked->id));
        self::assertRecorded('theirs@site.example exists at the host, but was not made from here');
    }

    public function test_killed_while_renewing_the_password_the_host_takes_is_the_one_that_stays(): void
    {
        $user = $this->ftpUser();
        $old = $user->secret;
        $renewing = ['pending' => PendingChange::renew(), 'next_secret' => 'another-Password-4711'];
        $user->update($renewing);
        $this->later();
        self::assertSame([$old, null], [$user->refresh()->secret, $user->pending], 'the host never heard of it');

        $this->host->changeFtpUser('job', ['password' => 'another-Password-4711']);
        $user->update($renewing);
        $this->later();
        self::assertSame(
            ['another-Password-4711', null],
            [$user->refresh()->secret, $user->pending],
            'the host had done it',
        );
    }

    public function test_killed_while_closing_it_is_closed(): void
    {
        $user = $this->ftpUser();
        $user->update(['pending' => PendingChange::close('by hand')]);
        $this->later();
        self::assertSame([FtpUserState::Closed, false], [$user->refresh()->state, $this->atHost()['open']]);
    }

    public function test_a_lost_answer_to_a_creation_is_found_out_by_asking(): void
    {
        $this->host->faults(['lose_answer' => true]);
        $user = $this->ftpUser();
        self::assertSame([FtpUserState::Open, null], [$user->state, $user->pending]);
    }

    public function test_a_lost_answer_to_a_change_is_found_out_by_asking(): void
    {
        $user = $this->ftpUser();
        $old = $user->secret;
        $this->host->faults(['lose_answer' => true]);
        $this->users()->renew($user);
        self::assertNotSame($old, $this->settled($user)->secret);
        self::assertTrue($this->users()->close($user, 'by hand'), (string) $user->trouble);
    }

    public function test_a_host_that_says_it_changed_nothing_leaves_all_as_it_was(): void
    {
        $user = $this->ftpUser();
        $this->users()->close($user, 'by hand');
        $this->host->faults(['control_fails' => true]);
        try {
            $this->users()->reopen($user, Closing::WithJob, null);
            self::fail('It was opened.');
        } catch (ControlFailure $failure) {
            self::assertStringContainsString('nothing was changed', $failure->getMessage());
        }
        self::assertSame(
            [FtpUserState::Closed, null, null],
            [$user->refresh()->state, $user->pending, $user->next_secret],
        );
    }

    public function test_a_slow_answer_is_not_a_lost_one(): void
    {
        $this->host->faults(['control_delay_ms' => 700]);
        self::assertSame(FtpUserState::Open, $this->ftpUser('slow')->state);
    }

    public function test_where_the_host_cannot_be_asked_it_is_asked_less_and_less_often_and_nothing_is_claimed(): void
    {
        $right = $this->account->control_url;
        $this->account->update(['control_url' => 'http://127.0.0.1:1']);
        $user = $this->users()->begin(
            $this->account,
            new NewFtpUser('job', RemotePath::fromString('/www/site.example')),
        );
        self::assertSame([FtpUserState::Asked, PendingAction::Create], [$user->state, $user->action()]);
        self::assertStringContainsString('not known whether it was done', (string) $user->trouble);
        self::assertFalse($this->users()->settle($user));
        for ($time = 0; $time < 4; $time++) {
            $this->later();
        }
        self::assertSame(3, $user->refresh()->pending?->tries);

        $this->account->update(['control_url' => $right]);
        $this->later(20);
        self::assertNull(FtpUser::find($user->id), 'the host knows no such user, so there is none');
    }

    public function test_where_the_host_cannot_be_asked_closing_is_tried_again_but_not_every_minute(): void
    {
        $right = $this->account->control_url;
        $open = $this->ftpUser();
        $this->account->update(['control_url' => 'http://127.0.0.1:1']);
        $open = $this->fresh($open);
        self::assertFalse($this->users()->close($open, 'by hand'));
        self::assertSame(FtpUserState::ClosingFailed, $open->refresh()->state);
        $this->account->update(['control_url' => $right]);
        app(Upkeep::class)->order();
        self::assertSame(FtpUserState::ClosingFailed, $open->refresh()->state);
        $this->travel(6)->minutes();
        app(Upkeep::class)->order();
        self::assertSame(FtpUserState::Closed, $open->refresh()->state);
    }

    public function test_a_creation_whose_process_is_killed_is_found_out_by_asking(): void
    {
        $this->host->faults(['control_delay_ms' => 4000]);
        $process = proc_open(
            [
                PHP_BINARY,
                'artisan',
                'cellarium:user-open',
                'site.example',
                'job',
                '--directory=/www/site.example',
                '--json',
            ],
            [1 => ['file', '/dev/null', 'w']],
            $pipes,
            dirname(__DIR__, 2),
            $this->settings() + getenv(),
        );
        self::assertNotFalse($process);
        $world = "{$this->host->directory}/world.json";
        self::assertTrue(
            $this->soon(static fn (): bool => str_contains((string) file_get_contents($world), 'job@site.example')),
            'the host has done it and has not answered yet',
        );
        self::assertSame(FtpUserState::Asked, FtpUser::firstOrFail()->state, 'it was written down first');
        posix_kill(proc_get_status($process)['pid'], SIGKILL);
        proc_close($process);
        $this->host->faults([]);
        $this->travel(2)->minutes();
        app(Upkeep::class)->order();
        self::assertSame([FtpUserState::Open, null], [FtpUser::firstOrFail()->state, FtpUser::firstOrFail()->pending]);
    }

    public function test_what_a_proof_that_was_cut_off_left_on_the_server_is_removed_later(): void
    {
        $user = $this->ftpUser();
        self::assertNull($user->probe);
        $before = self::contents($this->root());
        // The account's sessions end after a few commands, so that the proof cannot tidy up behind itself.
        $this->app->forgetInstance(\App\Hosting\Connections::class);
        foreach (range(6, 40, 2) as $commands) {
            $this->host->faults(['drop_after_commands' => $commands]);
            app(FtpUsers::class)->settle($this->fresh($user));
            if (self::contents($this->root()) !== $before) {
                break;
            }
        }
        self::assertNotSame($before, self::contents($this->root()), 'something was left behind');
        self::assertNotNull($user->refresh()->probe, 'and is known');
        self::assertTrue($user->isProven(), 'a broken connection proves nothing either way');
        $this->host->faults([]);
        self::assertTrue($this->users()->settle($this->fresh($user)));
        self::assertNotNull($user->refresh()->probe, 'a proof that went well forgets none that did not');
        $this->travel(2)->minutes();
        app(Upkeep::class)->order();
        self::assertSame([$before, null], [self::contents($this->root()), $user->refresh()->probe]);
    }

    private function soon(\Closure $holds): bool
    {
        for ($until = hrtime(true) + 20_000_000_000; ! $holds() && hrtime(true) < $until;) {
            usleep(20_000);
        }

        return $holds();
    }
}
