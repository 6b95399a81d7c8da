<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use App\Failure\Problem;
use App\FtpUsers\FtpUsers;
use App\FtpUsers\NewFtpUser;
use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use App\Models\PendingChange;
use App\Models\Proof;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Today\Concerns;
use App\Watch\Upkeep;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\InstructionSheet;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\StandinHost;

/** What is true at the host and what is written down here agree, whatever happens in between. */
final class FtpUsersTest extends AppTestCase
{
    private function users(): FtpUsers
    {
        return app(FtpUsers::class);
    }

    /** @return array<string, mixed>|null what the host has */
    private function atHost(string $login = 'job@site.example'): ?array
    {
        return collect($this->host->control('GET', '/v1/ftp-users', StandinHost::TOKEN)[1]['ftp_users'])->firstWhere(
            'login',
            $login,
        );
    }

    private function fresh(FtpUser $user): FtpUser
    {
        return FtpUser::with('account.client', 'account.sites')->findOrFail($user->id);
    }

    public function test_it_is_open_when_proven_and_lives_through_every_change_with_proof_and_record(): void
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

        $old = $user->secret;
        $user->update(['handed_over_at' => now()]);
        $this->users()->renew($user);
        self::assertTrue($this->users()->settle($user));
        self::assertNotSame($old, $user->refresh()->secret);
        self::assertNull($user->handed_over_at, 'a new password is handed over anew');

        mkdir($this->root().'/media');
        $this->users()->change(
            $user,
            RemotePath::fromString('/www/site.example/media'),
            true,
            null,
        );
        self::assertTrue($this->users()->settle($user));
        self::assertSame(['/www/site.example/media', null], [$user->refresh()->directory, $user->space_limit]);
        self::assertSame(
            ['/www/site.example/media', null],
            [$this->atHost()['directory'], $this->atHost()['space_limit']],
        );

        self::assertTrue($this->users()->close($user, 'by hand'));
        self::assertSame(
            [FtpUserState::Closed, null, false],
            [$user->refresh()->state, $user->secret, $this->atHost()['open']],
        );
        $this->users()->reopen($user, Closing::AtTime, now()->addHour());
        self::assertTrue($this->users()->settle($user));
        self::assertSame(
            [FtpUserState::Open, Closing::AtTime, true],
            [$user->refresh()->state, $user->ends, $this->atHost()['open']],
        );

        $this->users()->remove($user);
        self::assertTrue($this->users()->settle($user));
        self::assertSame([FtpUserState::Removed, null], [$user->refresh()->state, $this->atHost()]);
        self::assertSame(FtpUserState::Open, $this->ftpUser()->state, 'the login may be made again');
        foreach (
            [
                'created; landing in /www/site.example and proven',
                'Password of job@site.example renewed',
                'changed; landing in /www/site.example/media',
                'closed (by hand); its sign-in is refused',
                'opened again',
                'removed; its sign-in is refused',
            ] as $words
        ) {
            self::assertTrue(RecordEntry::where('sentence', 'like', "%$words%")->exists(), $words);
        }
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
    public function test_one_that_reaches_more_is_never_open_and_a_proof_that_no_longer_holds_is_a_concern(
        array $faults,
        string $words,
    ): void {
        $proven = $this->ftpUser('before', space: 3_000_000);
        $this->host->faults($faults);
        $user = $this->ftpUser('after', space: 3_000_000);
        self::assertSame([FtpUserState::Made, false], [$user->state, $user->isProven()]);
        self::assertStringContainsString($words, (string) $user->trouble);
        if (isset($faults['more_than_asked'])) {
            $this->host->control(
                'PATCH',
                '/v1/ftp-users/before@site.example',
                StandinHost::TOKEN,
                [
                    'space_limit' => 9,
                ],
            );
        }
        $this->travel(7)->hours();
        app(Upkeep::class)->proveAgain($this->account, 6);
        self::assertFalse($this->fresh($proven)->isProven());
        $concerns = collect(Concerns::compute()->all)->where('kind', 'reach');
        self::assertSame(2, $concerns->count());
        self::assertStringContainsString($words, $concerns->first()->evidence);
        self::assertSame(
            1,
            RecordEntry::where('sentence', 'like', 'Reach of before@site.example no longer holds%')->count(),
        );
        $this->host->faults([]);
        $this->host->control(
            'PATCH',
            '/v1/ftp-users/before@site.example',
            StandinHost::TOKEN,
            [
                'space_limit' => 3_000_000,
            ],
        );
        self::assertTrue($this->users()->settle($this->fresh($proven)));
        self::assertTrue($this->fresh($proven)->isProven());
    }

    public function test_by_hand_it_waits_for_a_person_and_counts_only_when_proven(): void
    {
        $this->account->update(['control_url' => null, 'company' => 'Northquay']);
        $user = $this->ftpUser(space: 3_000_000);
        self::assertSame([FtpUserState::Asked, PendingAction::Create], [$user->state, $user->action()]);
        $sheet = $this->users()->sheet($user);
        self::assertSame('Create job@site.example', $sheet?->title);
        $attempts = Proof::count();
        app(Upkeep::class)->settleLeft();
        self::assertSame($attempts, Proof::count(), 'nobody knocks before the person says it is done');
        self::assertFalse($this->users()->settle($user));
        self::assertStringContainsString('not done at the provider yet', (string) $user->trouble);

        // What the person does at the provider, first with the wrong directory.
        $this->host->control(
            'POST',
            '/v1/ftp-users',
            StandinHost::TOKEN,
            [
                'name' => 'job',
                'password' => $sheet->password?->reveal(),
                'directory' => '/www',
                'space_limit' => null,
            ],
        );
        self::assertFalse($this->users()->settle($user));
        self::assertStringContainsString('Landed elsewhere', (string) $user->trouble);
        self::assertSame(PendingAction::Create, $user->action(), 'the sheet stays');
        $this->host->control(
            'PATCH',
            '/v1/ftp-users/job@site.example',
            StandinHost::TOKEN,
            [
                'directory' => $sheet->fields['Directory'],
            ],
        );
        self::assertTrue($this->users()->settle($user));
        self::assertSame([FtpUserState::Open, null], [$user->refresh()->state, $this->users()->sheet($user)]);

        self::assertFalse($this->users()->close($user, 'by hand'));
        self::assertSame('Close job@site.example', $this->users()->sheet($user)?->title);
        self::assertFalse($this->users()->settle($user));
        self::assertSame(
            [FtpUserState::Open, true],
            [$user->state, str_contains((string) $user->trouble, 'can still sign in')],
        );
        $this->host->control(
            'PATCH',
            '/v1/ftp-users/job@site.example',
            StandinHost::TOKEN,
            ['open' => false],
        );
        $this->travel(2)->hours();
        app(Upkeep::class)->settleLeft();
        self::assertSame(FtpUserState::Closed, $user->refresh()->state, 'found out by itself in the end');

        $other = $this->ftpUser('other');
        $this->users()->giveUp($other);
        self::assertNull(FtpUser::find($other->id));
    }

    public function test_by_hand_every_change_has_its_sheet_and_is_true_when_proven(): void
    {
        $user = $this->ftpUser();
        mkdir($this->root().'/media');
        $this->account->update(['control_url' => null]);
        $user = $this->fresh($user);
        // What the person does at the provider, from what the sheet says.
        $does = fn (array $change) => $this->host->control(
            'PATCH',
            '/v1/ftp-users/job@site.example',
            StandinHost::TOKEN,
            $change,
        );
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
            self::assertSame([0, null], [FtpUser::count(), $this->atHost('lost@site.example')]);
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

    public function test_lost_answers_are_found_out_by_asking_the_host(): void
    {
        $this->host->faults(['lose_answer' => true]);
        $user = $this->ftpUser();
        self::assertSame(
            [FtpUserState::Open, null],
            [$user->state, $user->pending],
            'it was made; the host told when it was asked again',
        );
        $old = $user->secret;
        $this->users()->renew($user);
        self::assertTrue($this->users()->settle($user), (string) $user->trouble);
        self::assertNotSame($old, $user->refresh()->secret);
        self::assertTrue($this->users()->close($user, 'by hand'), (string) $user->trouble);

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
        $this->host->faults(['control_delay_ms' => 700]);
        self::assertSame(FtpUserState::Open, $this->ftpUser('slow')->state, 'slow is not lost');
    }

    public function test_where_the_host_cannot_be_asked_nothing_is_claimed_until_it_can(): void
    {
        $right = $this->account->control_url;
        $this->account->update(['control_url' => 'http://127.0.0.1:1']);
        $user = app(FtpUsers::class)->begin(
            $this->account,
            new NewFtpUser('job', RemotePath::fromString('/www/site.example')),
        );
        self::assertSame([FtpUserState::Asked, PendingAction::Create], [$user->state, $user->action()]);
        self::assertStringContainsString('not known whether it was done', (string) $user->trouble);
        self::assertFalse($this->users()->settle($user));
        foreach ([2, 2, 2, 2] as $minutes) {
            $this->travel($minutes)->minutes();
            app(Upkeep::class)->settleLeft();
        }
        self::assertSame(3, $user->refresh()->pending?->tries, 'asked less and less often');
        $this->account->update(['control_url' => $right]);
        $this->travel(20)->minutes();
        app(Upkeep::class)->settleLeft();
        self::assertNull(FtpUser::find($user->id), 'the host knows no such user, so there is none');

        $open = $this->ftpUser();
        $this->account->update(['control_url' => 'http://127.0.0.1:1']);
        $open->load('account.sites', 'account.client');
        self::assertFalse($this->users()->close($open, 'by hand'));
        self::assertSame(FtpUserState::ClosingFailed, $open->refresh()->state);
        $this->account->update(['control_url' => $right]);
        app(Upkeep::class)->closeDue();
        self::assertSame(FtpUserState::ClosingFailed, $open->refresh()->state, 'not every minute');
        $this->travel(6)->minutes();
        app(Upkeep::class)->closeDue();
        self::assertSame(FtpUserState::Closed, $open->refresh()->state);
    }

    public function test_a_process_that_was_killed_between_two_steps_leaves_what_can_be_found_out(): void
    {
        $written = [
            'login' => 'job@site.example',
            'directory' => '/www/site.example',
            'state' => FtpUserState::Asked,
            'next_secret' => 'the-Password-4711',
            'pending' => PendingChange::create('job'),
            'ends' => Closing::WithJob,
        ];
        $asked = $this->account->ftpUsers()->create($written);
        $this->host->control(
            'POST',
            '/v1/ftp-users',
            StandinHost::TOKEN,
            [
                'name' => 'job',
                'password' => 'the-Password-4711',
                'directory' => '/www/site.example',
                'space_limit' => null,
            ],
        );
        $this->travel(2)->minutes();
        app(Upkeep::class)->settleLeft();
        self::assertSame([FtpUserState::Open, 'the-Password-4711'], [$asked->refresh()->state, $asked->secret]);

        $renewing = $this->fresh($asked);
        $renewing->update(['pending' => PendingChange::renew(), 'next_secret' => 'another-Password-4711']);
        $this->travel(2)->minutes();
        app(Upkeep::class)->settleLeft();
        self::assertSame(
            ['the-Password-4711', null],
            [$renewing->refresh()->secret, $renewing->pending],
            'the host never heard of it',
        );
        $this->host->control(
            'PATCH',
            '/v1/ftp-users/job@site.example',
            StandinHost::TOKEN,
            [
                'password' => 'another-Password-4711',
            ],
        );
        $renewing->update(['pending' => PendingChange::renew(), 'next_secret' => 'another-Password-4711']);
        $this->travel(2)->minutes();
        app(Upkeep::class)->settleLeft();
        self::assertSame(
            ['another-Password-4711', null],
            [$renewing->refresh()->secret, $renewing->pending],
            'the host had done it',
        );

        $renewing->update(['pending' => PendingChange::close('by hand')]);
        $this->travel(2)->minutes();
        app(Upkeep::class)->settleLeft();
        self::assertSame(
            [FtpUserState::Closed, false],
            [$renewing->refresh()->state, $this->atHost()['open']],
            'what was to be closed is closed',
        );

        $others = $this->account
            ->ftpUsers()
            ->create(
                ['login' => 'theirs@site.example', 'pending' => PendingChange::create('theirs')] + $written,
            );
        $this->host->control(
            'POST',
            '/v1/ftp-users',
            StandinHost::TOKEN,
            [
                'name' => 'theirs',
                'password' => 'somebody-elses-word',
                'directory' => '/www',
                'space_limit' => null,
            ],
        );
        $this->travel(2)->minutes();
        app(Upkeep::class)->settleLeft();
        self::assertNull(FtpUser::find($others->id));
        self::assertTrue(
            RecordEntry::where(
                'sentence',
                'like',
                'theirs@site.example exists at the host, but was not made from here%',
            )->exists(),
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
        $this->host->control(
            'PATCH',
            '/v1/ftp-users/job@site.example',
            StandinHost::TOKEN,
            ['directory' => '/www'],
        );
        self::assertFalse($this->users()->settle($user));
        self::assertStringContainsString('lands in /www', (string) $user->trouble);
        self::assertTrue($this->users()->close($user, 'by hand'));
        self::assertSame(
            'job@site.example: sign-in refused (530)',
            $user->proofs()->where('kind', 'refusal')->firstOrFail()->sentence,
        );
    }

    public function test_one_that_was_made_elsewhere_is_noticed_and_can_be_taken_over_or_closed(): void
    {
        $mine = $this->ftpUser();
        foreach (['theirs', 'gone'] as $name) {
            $this->host->control(
                'POST',
                '/v1/ftp-users',
                StandinHost::TOKEN,
                [
                    'name' => $name,
                    'password' => 'somebody-elses-word',
                    'directory' => '/www',
                    'space_limit' => null,
                ],
            );
        }
        $this->host->control(
            'PATCH',
            '/v1/ftp-users/gone@site.example',
            StandinHost::TOKEN,
            ['open' => false],
        );
        app(AccountCheck::class)->connect($this->account);
        app(AccountCheck::class)->connect($this->account);
        self::assertSame(
            ['job@site.example', 'theirs@site.example'],
            FtpUser::orderBy('id')->pluck('login')->all(),
        );
        $found = FtpUser::with('account.client', 'account.sites')
            ->where('login', 'theirs@site.example')
            ->firstOrFail();
        self::assertSame(
            [FtpUserState::Made, '/www', Closing::Never],
            [$found->state, $found->directory, $found->ends],
        );
        self::assertSame(
            ['FTP user that was not made here'],
            collect(Concerns::compute()->all)->where('kind', 'found')->pluck('title')->values()->all(),
        );
        $this->users()->settle($found);
        self::assertSame(
            [FtpUserState::Made, false],
            [$found->refresh()->state, $found->isProven()],
            'what the host says of it is no proof',
        );
        $this->users()->renew($found);
        self::assertTrue($this->users()->settle($found), (string) $found->trouble);
        self::assertSame([FtpUserState::Open, true], [$found->state, $found->isProven()]);
        self::assertTrue($this->users()->close($found, 'by hand'));
        self::assertSame(FtpUserState::Open, $mine->refresh()->state);
        $this->host->control(
            'PATCH',
            '/v1/ftp-users/theirs@site.example',
            StandinHost::TOKEN,
            [
                'open' => true,
                'password' => 'somebody-elses-word',
            ],
        );
        app(AccountCheck::class)->connect($this->account);
        self::assertSame(
            [FtpUserState::Made, 'it was opened again elsewhere'],
            [$found->refresh()->state, $found->ends_reason],
        );
        self::assertTrue(
            $this->users()->close($found, 'by hand'),
            'with a password of our own, so that its refusal proves something',
        );
        self::assertFalse($this->atHost('theirs@site.example')['open']);
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
        app(Upkeep::class)->settleLeft();
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
        app(Upkeep::class)->tidy();
        self::assertSame([$before, null], [self::contents($this->root()), $user->refresh()->probe]);
    }

    private function soon(\Closure $holds): bool
    {
        for ($until = hrtime(true) + 20_000_000_000; ! $holds() && hrtime(true) < $until;) {
            usleep(20_000);
        }

        return $holds();
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
