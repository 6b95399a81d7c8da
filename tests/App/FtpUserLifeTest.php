<?php

declare(strict_types=1);

namespace Tests\App;

use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\NewFtpUser;
use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Today\Concerns;
use App\Watch\Upkeep;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\StandinHost;

/** From made to removed: each change is true at the host, written down and proven. */
final class FtpUserLifeTest extends FtpUserTestCase
{
    public function test_it_is_open_once_every_step_of_its_reach_is_proven(): void
    {
        $user = $this->ftpUser(space: 3_000_000);
        self::assertSame(
            [FtpUserState::Open, true, null, null],
            [$user->state, $user->isProven(), $user->pending, $user->next_secret],
            (string) $user->trouble,
        );
        $steps = $user->proofs()->orderBy('id')->get();
        self::assertSame(
            [
                'sign_in',
                'landing',
                'parent',
                'absolute',
                'encoded',
                'files',
                'link',
                'write',
                'read_back',
                'remove',
                'space',
            ],
            $steps->pluck('name')->all(),
        );
        self::assertSame(['230 Signed in', 1], [$steps[0]->answer, $steps->pluck('run')->unique()->count()]);
        self::assertRecorded('created; landing in /www/site.example and proven');
    }

    public function test_a_renewed_password_is_handed_over_anew(): void
    {
        $user = $this->ftpUser();
        $old = $user->secret;
        $user->update(['handed_over_at' => now()]);
        $this->users()->renew($user);
        self::assertNotSame($old, $this->settled($user)->secret);
        self::assertNull($user->handed_over_at);
        self::assertRecorded('Password of job@site.example renewed');
    }

    public function test_a_change_of_directory_and_space_is_the_hosts_and_ours(): void
    {
        $user = $this->ftpUser(space: 3_000_000);
        mkdir($this->root().'/media');
        $this->users()->change($user, RemotePath::fromString('/www/site.example/media'), true, null);
        $this->settled($user);
        $there = $this->atHost();
        self::assertSame(['/www/site.example/media', null], [$user->directory, $user->space_limit]);
        self::assertSame(['/www/site.example/media', null], [$there['directory'], $there['space_limit']]);
        self::assertRecorded('changed; landing in /www/site.example/media');
    }

    public function test_a_closed_one_is_refused_and_its_password_forgotten(): void
    {
        $user = $this->ftpUser();
        self::assertTrue($this->users()->close($user, 'by hand'));
        self::assertSame(
            [FtpUserState::Closed, null, false],
            [$user->refresh()->state, $user->secret, $this->atHost()['open']],
        );
        self::assertRecorded('closed (by hand); its sign-in is refused');
    }

    public function test_one_that_is_opened_again_gets_a_new_time_to_close(): void
    {
        $user = $this->ftpUser();
        $this->users()->close($user, 'by hand');
        $this->users()->reopen($user, Closing::AtTime, now()->addHour());
        $this->settled($user);
        self::assertSame(
            [FtpUserState::Open, Closing::AtTime, true],
            [$user->state, $user->ends, $this->atHost()['open']],
        );
        self::assertRecorded('opened again');
    }

    public function test_a_removed_one_leaves_its_login_free(): void
    {
        $user = $this->ftpUser();
        $this->users()->remove($user);
        self::assertSame([FtpUserState::Removed, null], [$this->settled($user)->state, $this->atHost()]);
        self::assertRecorded('removed; its sign-in is refused');
        self::assertSame(FtpUserState::Open, $this->ftpUser()->state);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function hosts(): iterable
    {
        yield 'it lands elsewhere' => [['land_home' => true], 'Landed elsewhere'];
        yield 'it is kept nowhere' => [['no_jail' => true], 'Going up led out'];
        yield 'it gets more than asked' => [['more_than_asked' => true], 'Space: no limit, where 3 MB was asked for'];
    }

    /** @param  array<string, mixed>  $faults */
    #[DataProvider('hosts')]
    public function test_one_that_reaches_more_than_was_asked_for_is_never_open(array $faults, string $words): void
    {
        $this->host->faults($faults);
        $user = $this->ftpUser(space: 3_000_000);
        self::assertSame([FtpUserState::Made, false], [$user->state, $user->isProven()]);
        self::assertStringContainsString($words, (string) $user->trouble);
    }

    /** @param  array<string, mixed>  $faults */
    #[DataProvider('hosts')]
    public function test_a_proof_that_no_longer_holds_is_a_concern_until_it_holds_again(
        array $faults,
        string $words,
    ): void {
        $proven = $this->ftpUser(space: 3_000_000);
        $this->host->faults($faults);
        isset($faults['more_than_asked']) && $this->host->changeFtpUser('job', ['space_limit' => 9]);
        $this->travel(7)->hours();
        app(Upkeep::class)->proveAgain($this->account, 6);
        self::assertFalse($this->fresh($proven)->isProven());
        $concerns = collect(Concerns::compute()->all)->where('kind', 'reach');
        self::assertSame(1, $concerns->count());
        self::assertStringContainsString($words, $concerns->first()->evidence);
        self::assertRecorded('Reach of job@site.example no longer holds');

        $this->host->faults([]);
        $this->host->changeFtpUser('job', ['space_limit' => 3_000_000]);
        $again = $this->fresh($proven);
        self::assertTrue($this->users()->settle($again), (string) $again->trouble);
        self::assertTrue($this->fresh($proven)->isProven());
    }

    public function test_a_refused_creation_leaves_nothing_behind(): void
    {
        $this->host->control(
            'POST',
            '/v1/ftp-users',
            StandinHost::TOKEN,
            [
                'name' => 'taken',
                'password' => 'a-long-enough-word',
                'directory' => '/www',
                'space_limit' => null,
            ],
        );
        foreach (['taken' => 'exists already', 'A B' => 'This host takes'] as $name => $words) {
            try {
                $this->ftpUser((string) $name);
                self::fail("$name was made.");
            } catch (ControlFailure|Problem $refused) {
                self::assertStringContainsString($words, $refused->getMessage());
            }
        }
        try {
            $this->ftpUser('lost', '/www/typo');
            self::fail('A directory that is not there was taken.');
        } catch (ControlFailure) {
            self::assertSame([0, null], [FtpUser::count(), $this->atHost('lost')]);
        }
        $made = app(FtpUsers::class)->open(
            $this->account,
            new NewFtpUser('deep', RemotePath::fromString('/www/new/deep'), makesDirectory: true),
        );
        self::assertSame([FtpUserState::Open, true], [$made->state, is_dir("{$this->host->home}/www/new/deep")]);
    }

    public function test_the_same_login_twice_at_once_is_made_once(): void
    {
        $script = 'require $argv[1]."/vendor/autoload.php"; $app = require $argv[1]."/bootstrap/app.php"; '
            .'$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();'
            .'try { $user = app(App\FtpUsers\FtpUsers::class)->open(App\Models\Account::with("sites", '
            .'"client")->findOrFail($argv[2]), new App\FtpUsers\NewFtpUser("job", '
            .'Cellarium\Core\Path\RemotePath::fromString("/www/site.example"))); echo $user->state->value; } catch '
            .'(App\Failure\Problem|Cellarium\Core\Hosting\ControlFailure $refused) { echo "refused: ", '
            .'$refused->getMessage(); }';
        $running = [];
        for ($count = 0; $count < 2; $count++) {
            $running[] = proc_open(
                [PHP_BINARY, '-r', $script, '--', dirname(__DIR__, 2), (string) $this->account->id],
                [1 => ['pipe', 'w']],
                $pipes[],
                null,
                $this->settings() + getenv(),
            );
        }
        $said = array_map(static fn (array $ends): string => (string) stream_get_contents($ends[1]), $pipes);
        array_map(proc_close(...), $running);
        sort($said);
        self::assertSame(FtpUserState::Open->value, $said[0], implode(' / ', $said));
        self::assertStringContainsString('exists already', $said[1]);
        self::assertSame(
            [1, 1],
            [FtpUser::count(), count($this->host->control('GET', '/v1/ftp-users', StandinHost::TOKEN)[1]['ftp_users'])],
        );
    }

    public function test_it_closes_at_its_time_to_the_minute_and_a_clock_that_jumps_opens_nothing(): void
    {
        $this->travelTo(now()->startOfMinute());
        $user = $this->ftpUser(ends: Closing::AtTime, closesAt: now()->addMinutes(3));
        $this->travel(2)->minutes();
        $this->artisan('cellarium:close-due');
        self::assertSame(FtpUserState::Open, $user->refresh()->state);
        $this->travel(1)->minutes();
        $this->artisan('cellarium:close-due');
        self::assertSame([FtpUserState::Closed, false], [$user->refresh()->state, $this->atHost()['open']]);
        $this->travel(-2)->days();
        $this->artisan('cellarium:close-due');
        self::assertSame(
            [FtpUserState::Closed, false, 0],
            [$user->refresh()->state, $this->atHost()['open'], $user->idleDays()],
        );
        // One that was being closed when the clock was set back is tried again at once, not in two days.
        $user->update(['state' => FtpUserState::ClosingFailed, 'tried_at' => now()->addDays(2), 'secret' => 'any']);
        $this->artisan('cellarium:close-due');
        self::assertSame(FtpUserState::Closed, $user->refresh()->state);
        $job = $this->ftpUser('other', ends: Closing::WithJob);
        $this->travel(400)->days();
        $this->artisan('cellarium:close-due');
        self::assertSame(FtpUserState::Open, $job->refresh()->state, 'a job ends it, not a clock');
    }

    public function test_a_host_that_closes_late_or_never_is_caught_and_tried_again(): void
    {
        $user = $this->ftpUser();
        $this->host->faults(['close_never' => true]);
        self::assertFalse($this->users()->close($user, 'by hand'));
        self::assertSame(FtpUserState::ClosingFailed, $user->refresh()->state);
        self::assertSame('job@site.example can still sign in', $user->trouble);
        self::assertSame('FTP user still open', Concerns::compute()->all[0]->title);
        foreach ([1, 2] as $time) {
            $this->travel(6)->minutes();
            $this->artisan('cellarium:close-due');
        }
        self::assertSame(FtpUserState::ClosingFailed, $user->refresh()->state);
        self::assertSame(
            1,
            RecordEntry::where('action', RecordKind::FtpUserClosed)->count(),
            'the same trouble is not written down again and again',
        );
        $this->host->faults([]);
        $this->travel(6)->minutes();
        $this->artisan('cellarium:close-due');
        self::assertSame([FtpUserState::Closed, null], [$user->refresh()->state, $user->trouble]);
    }

    public function test_idle_days_come_from_the_host_and_our_own_proofs_do_not_count_as_use(): void
    {
        $user = $this->ftpUser();
        self::assertNull($user->used_at);
        $this->users()->settle($user);
        self::assertNull($user->refresh()->used_at, 'only we were there');
        $at = ftp_connect('127.0.0.1', $this->host->ftpPort);
        self::assertNotFalse($at);
        self::assertTrue(ftp_login($at, $user->login, (string) $user->secret));
        ftp_close($at);
        $this->users()->settle($user);
        self::assertNotNull($user->refresh()->used_at, 'somebody was there');
        DB::table('ftp_users')->update(['used_at' => now()->subDays(40)]);
        $this->users()->settle($user);
        self::assertSame(40, $user->refresh()->idleDays());
    }

    public function test_where_its_password_was_forgotten_the_host_tells_and_closing_is_proven_with_another(): void
    {
        $user = $this->ftpUser(space: 3_000_000);
        $user->update(['secret' => null, 'handed_over_at' => now()]);
        $proven = $user->reach_proven_at;
        $this->travel(3)->days();
        self::assertTrue($this->users()->settle($user));
        self::assertEquals(
            $proven,
            $user->refresh()->reach_proven_at,
            'what the host says is not dated as a proof by being the user',
        );
        self::assertStringContainsString(
            'nobody signed in, its password was forgotten here',
            $user->proofs()->latest('id')->firstOrFail()->sentence,
        );
        $this->host->changeFtpUser('job', ['directory' => '/www']);
        self::assertFalse($this->users()->settle($user));
        self::assertStringContainsString('lands in /www', (string) $user->trouble);
        self::assertTrue($this->users()->close($user, 'by hand'));
        self::assertSame(
            'job@site.example: sign-in refused (530)',
            $user->proofs()->where('kind', 'refusal')->firstOrFail()->sentence,
        );
    }

    public function test_an_account_that_cannot_be_reached_says_nothing_about_its_users(): void
    {
        $user = $this->ftpUser();
        $this->account->update(['secret' => 'no longer right']);
        self::assertFalse($this->users()->settle($this->fresh($user)));
        self::assertTrue($this->fresh($user)->isProven());
        self::assertStringContainsString(
            'Could not be tried: As the account itself',
            (string) $this->fresh($user)->trouble,
        );
    }

    public function test_a_weak_word_is_no_password_of_the_order_by_itself(): void
    {
        self::assertMatchesRegularExpression(
            '/\A.{4}-.{4}-.{4}-.{4}\z/',
            (new NewFtpUser('x', RemotePath::root()))->password->reveal(),
        );
        self::assertSame(
            'own',
            (new NewFtpUser('x', RemotePath::root(), password: new Secret('own')))->password->reveal(),
        );
    }
}
