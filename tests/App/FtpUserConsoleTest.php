<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\FtpUser;
use PHPUnit\Framework\Attributes\DataProvider;

/** FTP users made, proven, listed and closed by commands. */
final class FtpUserConsoleTest extends AppTestCase
{
    /** @return array{int, array<string, mixed>} */
    private function open(string ...$options): array
    {
        return $this->artisanJson('user-open', 'site.example', 'job', ...$options);
    }

    public function test_one_is_made_proven_and_handed_over_in_one_command(): void
    {
        [$status, $made] = $this->open(
            '--directory=/www/site.example',
            '--space=3MB',
            '--closes='.now()->addDay()->format('Y-m-d H:i'),
            '--hand-over',
        );
        self::assertSame([0, true, 'job@site.example', 'open'], [$status, $made['ok'], $made['login'], $made['state']]);
        self::assertSame(
            'ftp://job%40site.example@ftp.host.example:'.$this->host->ftpPort.'/',
            $made['settings']['URI'],
        );
        self::assertNull(FtpUser::firstOrFail()->secret, 'nobody here can read it any more');
    }

    public function test_a_login_that_is_there_is_refused(): void
    {
        $this->ftpUser();
        [$status, $again] = $this->open('--directory=/www/site.example');
        self::assertSame([1, false, true], [$status, $again['ok'], str_contains($again['error'], 'exists already')]);
    }

    /** @return iterable<string, array{string, string}> */
    public static function wrongOptions(): iterable
    {
        yield 'a directory without its slash' => ['--directory=www', 'is no directory'];
        yield 'a space in words' => ['--space=lots', 'is no space'];
        yield 'a time in words' => ['--closes=soon-ish', 'is no time'];
        yield 'never, without a reason' => ['--closes=never', 'why it never closes'];
        yield 'a time that is over' => ['--closes=2020-01-01', 'lies in the past'];
    }

    #[DataProvider('wrongOptions')]
    public function test_a_wrong_option_is_named(string $option, string $words): void
    {
        $directory = str_starts_with($option, '--directory') ? [] : ['--directory=/www'];
        self::assertStringContainsString($words, $this->open($option, ...$directory)[1]['error']);
        self::assertSame(0, FtpUser::count());
    }

    public function test_its_reach_is_proven_step_by_step(): void
    {
        $this->ftpUser();
        [$status, $proof] = $this->artisanJson('user-prove', 'site.example', 'job');
        self::assertSame(
            [0, true, ['name', 'ok', 'answer', 'at']],
            [$status, $proof['reach_ok'], array_slice(array_keys($proof['steps'][0]), 0, 4)],
        );
    }

    public function test_a_reach_that_no_longer_holds_names_the_step(): void
    {
        $this->ftpUser();
        $this->host->faults(['no_jail' => true]);
        [$status, $proof] = $this->artisanJson('user-prove', 'site.example', 'job');
        self::assertSame([1, false, 'parent'], [$status, $proof['reach_ok'], end($proof['steps'])['name']]);
    }

    public function test_users_and_their_reach_are_listed(): void
    {
        $user = $this->ftpUser(space: 3_000_000);
        [, $users] = $this->artisanJson('users', 'site.example');
        self::assertSame(
            [['job@site.example', 'open', 3_000_000, 0]],
            array_map(
                static fn (array $user): array => [$user['login'], $user['state'], $user['space'], $user['idle_days']],
                $users,
            ),
        );
        [, $reach] = $this->artisanJson('reach');
        self::assertSame(
            [
                [
                    'account' => $this->account->id,
                    'login' => $user->login,
                    'directory' => '/www/site.example',
                    'open' => true,
                    'closes' => $users[0]['closes'],
                    'sites' => [['site' => 'site.example', 'extent' => 'whole']],
                    'clients' => ['Pilgrim Stones Hostel'],
                    'flags' => [],
                ],
            ],
            $reach,
        );
        self::assertCount(1, $this->artisanJson('reach', 'site.example')[1]);
    }

    public function test_one_is_closed_with_its_refusal_for_proof_and_opened_again(): void
    {
        $this->ftpUser();
        [$status, $closed] = $this->artisanJson('user-close', 'site.example', 'job@site.example');
        self::assertSame(
            [0, 'closed', 'job@site.example: sign-in refused (530)'],
            [$status, $closed['state'], $closed['proof']],
        );
        self::assertSame(1, $this->artisanJson('user-prove', 'site.example', 'job')[0]);
        [$status, $open] = $this->open('--closes=job');
        self::assertSame([0, 'open', 'job'], [$status, $open['state'], $open['closes']]);
    }

    public function test_what_a_person_has_to_do_has_an_exit_status_of_its_own(): void
    {
        $this->ftpUser();
        $this->account->update(['control_url' => null]);
        [$status, $byHand] = $this->artisanJson('user-open', 'site.example', 'hand', '--directory=/www/site.example');
        self::assertSame([3, false, 'Create hand@site.example'], [$status, $byHand['ok'], $byHand['to_do']['title']]);
        self::assertSame(3, $this->artisanJson('user-close', 'site.example', 'job')[0]);
        self::assertSame(1, $this->artisanJson('user-close', 'site.example', 'nobody')[0]);
    }
}
