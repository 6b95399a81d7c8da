<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\ControlFault;
use Cellarium\Core\Hosting\LinkedControl;
use Cellarium\Core\Hosting\LoginRules;
use Cellarium\Core\Hosting\UserChange;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Proof\Evidence;
use Cellarium\Core\Proof\ReachProof;
use Cellarium\Core\Reach\MeantReach;
use Cellarium\Core\Web\CurlWebClient;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\FixedClock;
use Tests\Support\HostTestCase;
use Tests\Support\StandinHost;

/** FTP users at the stand-in: made, changed and closed through the control service, proven over real connections. */
final class FtpUsersTest extends HostTestCase
{
    private const PASSWORD = 'a-long-enough-word';

    private static int $made = 0;

    protected function tearDown(): void
    {
        self::host()->faults([]);
        parent::tearDown();
    }

    private static function control(): LinkedControl
    {
        return new LinkedControl(
            'http://127.0.0.1:'.self::host()->controlPort,
            new Secret(StandinHost::TOKEN),
            new CurlWebClient(static fn (): ?string => null),
        );
    }

    private static function another(): string
    {
        return 'job'.self::$made++;
    }

    private static function proof(
        string $login,
        string $directory = '/www/site.example',
        bool $readOnly = false,
        ?int $space = null,
        Protocol $protocol = Protocol::FtpsExplicit,
    ): ReachProof {
        $meant = new MeantReach(
            $login,
            RemotePath::fromString($directory),
            $readOnly,
            $space,
            [
                RemotePath::fromString('/www/other.example'),
            ],
        );

        return new ReachProof(
            $meant,
            new FtpRemoteDirectory(self::host()->endpoint($protocol, $login, self::PASSWORD)),
            new FtpRemoteDirectory(self::host()->endpoint($protocol)),
            bin2hex(random_bytes(4)),
            new FixedClock(),
        );
    }

    private function proven(
        string $directory = '/www/site.example',
        bool $readOnly = false,
        ?int $space = null,
        Protocol $protocol = Protocol::FtpsExplicit,
    ): Evidence {
        $user = self::control()->createFtpUser(
            self::another(),
            new Secret(self::PASSWORD),
            RemotePath::fromString($directory),
            $space,
            $readOnly,
        );
        $before = self::contents(self::host()->home);
        $evidence = self::proof($user->login, $directory, $readOnly, $space, $protocol)->open(
            self::control()->ftpUser($user->login),
        );
        self::assertSame($before, self::contents(self::host()->home), 'nothing is left behind');

        return $evidence;
    }

    /** @return iterable<string, array{Protocol, bool, string|null}> */
    public static function ways(): iterable
    {
        yield 'over TLS' => [Protocol::FtpsExplicit, false, null];
        yield 'plain' => [Protocol::Ftp, false, null];
        yield 'over TLS from the start' => [Protocol::FtpsImplicit, false, null];
        yield 'read only' => [Protocol::FtpsExplicit, true, null];
        yield 'where only LIST is known' => [Protocol::FtpsExplicit, false, 'unix'];
    }

    #[DataProvider('ways')]
    public function test_one_that_is_kept_is_proven_with_the_answers_of_the_server(
        Protocol $protocol,
        bool $readOnly,
        ?string $listing,
    ): void {
        self::host()->faults(['listing' => $listing]);
        $evidence = $this->proven(readOnly: $readOnly, space: 3_000_000, protocol: $protocol);
        self::assertTrue($evidence->holds(), (string) $evidence->broken()?->sentence);
        self::assertSame(
            ['230 Signed in', 'parent', 'absolute'],
            [$evidence->steps[0]->answer, $evidence->steps[2]->name, $evidence->steps[3]->name],
        );
        self::assertMatchesRegularExpression('/\A550 /', (string) $evidence->steps[3]->answer);
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> */
    public static function hosts(): iterable
    {
        yield 'it lands elsewhere' => [['land_home' => true], 'landing', 'Landed elsewhere'];
        yield 'it is kept nowhere' => [['no_jail' => true], 'parent', 'Going up led out: ".."'];
        yield 'it gets more space' => [
            ['more_than_asked' => true],
            'space',
            'Space: no limit, where 3 MB was asked for',
        ];
    }

    /** @param  array<string, mixed>  $faults */
    #[DataProvider('hosts')]
    public function test_a_host_that_gives_more_is_caught(array $faults, string $step, string $words): void
    {
        self::host()->faults($faults);
        $broken = $this->proven(space: 3_000_000)->broken();
        self::assertSame([$step, true], [$broken?->name, $broken?->decided]);
        self::assertStringContainsString($words, (string) $broken?->sentence);
    }

    public function test_one_that_may_write_though_made_to_read_is_caught_and_so_is_a_link_that_leads_out(): void
    {
        self::host()->faults(['more_than_asked' => true]);
        self::assertSame('write', $this->proven(readOnly: true)->broken()?->name);
        self::host()->faults([]);
        symlink('../other.example', self::host()->home.'/www/site.example/neighbour');
        try {
            self::assertTrue($this->proven()->holds(), 'this host does not follow it');
        } finally {
            unlink(self::host()->home.'/www/site.example/neighbour');
        }
    }

    public function test_a_file_is_seen_by_a_way_round_only_where_the_host_keeps_nobody(): void
    {
        $user = self::control()->createFtpUser(
            self::another(),
            new Secret(self::PASSWORD),
            RemotePath::fromString('/www/site.example'),
            null,
        );
        foreach ([[[], false], [['no_jail' => true], true]] as [$faults, $seen]) {
            self::host()->faults($faults);
            $remote = new FtpRemoteDirectory(
                self::host()->endpoint(Protocol::FtpsExplicit, $user->login, self::PASSWORD),
            );
            self::assertTrue($remote->sees('default.htm'));
            self::assertSame(
                [$seen, $seen],
                [$remote->sees('../site.example/default.htm'), $remote->sees('/www/site.example/default.htm')],
            );
            self::assertFalse($remote->sees('gone.htm'));
        }
    }

    public function test_what_cannot_be_carried_through_is_not_decided(): void
    {
        $user = self::control()->createFtpUser(
            self::another(),
            new Secret(self::PASSWORD),
            RemotePath::fromString('/www/site.example'),
            null,
        );
        self::host()->faults(['refuse' => true]);
        $evidence = self::proof($user->login)->open();
        self::assertSame([false, false], [$evidence->holds(), $evidence->decided()]);
        self::assertFalse(self::proof($user->login)->closed()->decided());
    }

    public function test_the_control_service_makes_changes_closes_and_removes(): void
    {
        $control = self::control();
        self::assertEquals(
            LoginRules::fromForm('{name}@site.example', 'a-z0-9._-', 32, 100, true),
            $control->loginRules(),
        );
        $login = $control->createFtpUser(
            'dawn',
            new Secret(self::PASSWORD),
            RemotePath::fromString('/www/site.example'),
            10_000,
        )->login;
        self::assertSame('dawn@site.example', $login);
        self::assertNull($control->ftpUser($login)?->lastUsed);
        $open = new FtpRemoteDirectory(self::host()->endpoint(Protocol::FtpsExplicit, $login, self::PASSWORD));
        $open->list(RemotePath::root());
        self::assertMatchesRegularExpression(
            '/\A\d{4}-\d\d-\d\dT[\d:.]+Z\z/',
            (string) $control->ftpUser($login)?->lastUsed,
        );
        foreach (
            [
                ['dawn', self::PASSWORD, '/www', ControlFault::LoginExists],
                ['Bad Name', self::PASSWORD, '/www', ControlFault::Invalid],
                ['short', 'xy', '/www', ControlFault::Invalid],
                ['lost', self::PASSWORD, '/none', ControlFault::Invalid],
            ] as [$name, $password, $directory, $fault]
        ) {
            try {
                $control->createFtpUser($name, new Secret($password), RemotePath::fromString($directory), null);
                self::fail("$name was taken.");
            } catch (ControlFailure $failure) {
                self::assertSame([$fault, true], [$failure->reason, $failure->reason->isCertain()]);
                self::assertStringNotContainsString(self::PASSWORD, $failure->getMessage());
            }
        }
        $changed = $control->changeFtpUser(
            $login,
            new UserChange(directory: RemotePath::fromString('/www'), setsSpace: true),
        );
        self::assertSame(['/www', null, true], [$changed->directory, $changed->spaceLimit, $changed->open]);
        $control->changeFtpUser($login, new UserChange(open: false));
        self::assertSame("$login: sign-in refused (530)", self::proof($login)->closed()->steps[0]->sentence);
        try {
            $open->list(RemotePath::root());
            self::fail('A connection that was open stays useful after the user is closed.');
        } catch (RemoteFailure) {
            self::assertFalse($control->ftpUser($login)?->open);
        }
        $control->removeFtpUser($login);
        $control->removeFtpUser($login);
        self::assertNull($control->ftpUser($login));
        self::assertNotContains($login, array_column($control->ftpUsers(), 'login'));
        self::assertSame(401, self::host()->control('GET', '/v1/account', 'wrong')[0]);
        self::assertSame(404, self::host()->control('GET', '/v1/elsewhere', StandinHost::TOKEN)[0]);
        self::assertSame(401, self::host()->control('PUT', '/operator/faults/harbour', StandinHost::TOKEN, [])[0]);
        self::assertSame(5_000_000, $control->space()->limit);
        self::assertGreaterThan(0, $control->space()->left());
    }

    public function test_a_lost_answer_leaves_it_open_whether_it_was_done_and_the_host_tells(): void
    {
        $name = self::another();
        self::host()->faults(['lose_answer' => true]);
        try {
            self::control()->createFtpUser(
                $name,
                new Secret(self::PASSWORD),
                RemotePath::fromString('/www/site.example'),
                null,
            );
            self::fail('There was no answer.');
        } catch (ControlFailure $failure) {
            self::assertSame([ControlFault::Unreachable, false], [$failure->reason, $failure->reason->isCertain()]);
        }
        self::assertTrue(self::control()->ftpUser("$name@site.example")?->open, 'it was made all the same');
        self::host()->faults(['control_fails' => true]);
        $this->expectExceptionMessage('nothing was changed');
        self::control()->createFtpUser(
            self::another(),
            new Secret(self::PASSWORD),
            RemotePath::fromString('/www/site.example'),
            null,
        );
    }

    public function test_a_host_that_closes_late_or_never_is_caught(): void
    {
        $late = self::control()->createFtpUser(
            self::another(),
            new Secret(self::PASSWORD),
            RemotePath::fromString('/www/site.example'),
            null,
        )->login;
        self::host()->faults(['close_late' => 2]);
        self::assertFalse(self::control()->changeFtpUser($late, new UserChange(open: false))->open);
        self::assertSame("$late can still sign in", self::proof($late)->closed()->broken()?->sentence);
        $until = hrtime(true) + 10_000_000_000;
        while (! self::proof($late)->closed()->holds() && hrtime(true) < $until) {
            usleep(100_000);
        }
        self::assertTrue(self::proof($late)->closed()->holds());
        self::host()->faults(['close_never' => true]);
        self::assertFalse(self::proof($late)->closed()->holds());
    }
}
