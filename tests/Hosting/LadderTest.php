<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\HostsFile;
use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\TlsUse;
use Cellarium\Core\Diagnosis\Ladder;
use Cellarium\Core\Diagnosis\LadderResult;
use Cellarium\Core\Diagnosis\Rung;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Standin\World\CertificateMaker;
use Tests\Support\HostTestCase;
use Tests\Support\Proftpd;
use Tests\Support\PythonFtpServer;
use Tests\Support\SshServer;
use Tests\Support\StandinHost;

/** Every way to fail on the way up, each produced by a real server, and what is said about it. */
final class LadderTest extends HostTestCase
{
    private ?SshServer $ssh = null;

    private ?PythonFtpServer $python = null;

    protected function tearDown(): void
    {
        self::host()->faults([]);
        $this->ssh?->stop();
        $this->python?->stop();
        parent::tearDown();
    }

    /** @param  array<int, string>  $usualPorts */
    private function climb(
        Endpoint $endpoint,
        ?string $known = null,
        string $root = '/www/site.example',
        array $usualPorts = [],
        int $answerSeconds = 2,
    ): LadderResult {
        return (new Ladder(
            new HostsFile(self::host()->directory.'/hosts'),
            new ConnectionSettings(3, $answerSeconds),
            $usualPorts,
        ))->climb($endpoint, $known, ['site.example' => RemotePath::fromString($root)], null, '.cellarium-test-0.part');
    }

    private static function with(
        Endpoint $from,
        ?Protocol $protocol = null,
        ?int $port = null,
        ?string $host = null,
        ?string $login = null,
        bool $trusting = true,
        bool $located = true,
    ): Endpoint {
        return new Endpoint(
            $host ?? $from->host,
            $port ?? $from->port,
            $protocol ?? $from->protocol,
            $login ?? $from->login,
            $from->password,
            $located ? $from->address : null,
            $trusting ? $from->authorities : null,
        );
    }

    private static function assertBroke(
        string $rung,
        FailureReason $reason,
        string $words,
        ?string $remedy,
        LadderResult $ascent,
    ): Rung {
        $broken = $ascent->broken();
        self::assertNotNull($broken, 'every rung held');
        self::assertSame([$rung, $reason], [$broken->name, $broken->reason], $broken->evidence);
        self::assertStringContainsString($words, "$broken->evidence. $broken->cause. $broken->next");
        self::assertSame(
            $remedy,
            $broken->remedy === null ? null : "{$broken->remedy->change} {$broken->remedy->value}",
        );

        return $broken;
    }

    private function ssh(string ...$more): SshServer
    {
        return $this->ssh = new SshServer($this->directory(), array_values($more));
    }

    private function python(string $unknown = '', string $passive = '', bool $tls = false, int $most = 100): Endpoint
    {
        $own = $this->directory();
        (new CertificateMaker($own))->make([StandinHost::HOST]);
        $home = $this->directory();
        mkdir("$home/www/site.example", 0777, true);
        $this->python = new PythonFtpServer(
            $home,
            $tls ? "$own/server.pem" : '',
            "$own/ca.pem",
            $most,
            $unknown,
            $passive,
        );

        return $this->python->endpoint();
    }

    public function test_all_rungs_hold_over_every_protocol(): void
    {
        $names = [
            'name',
            'port',
            'greeting',
            'encryption',
            'sign-in',
            'data',
            'listing',
            'transfers',
            'document roots',
        ];
        foreach ([Protocol::Ftp, Protocol::FtpsExplicit] as $protocol) {
            $ascent = $this->climb(self::with(self::host()->endpoint($protocol), located: false));
            self::assertSame(
                $names,
                array_map(static fn (Rung $rung): string => $rung->name, $ascent->rungs),
                (string) $ascent->broken()?->evidence,
            );
            self::assertTrue($ascent->holds());
            self::assertContains('EPSV', $ascent->features);
            self::assertIsInt($ascent->latencyMs);
        }
        $implicit = $this->climb(self::host()->endpoint(Protocol::FtpsImplicit));
        self::assertTrue($implicit->holds(), (string) $implicit->broken()?->evidence);
        self::assertSame('encryption', $implicit->rungs[2]->name, 'TLS comes before the greeting');
        $ssh = $this->ssh();
        mkdir("$ssh->home/www/site.example", 0777, true);
        $ascent = $this->climb($ssh->endpoint());
        self::assertSame(
            ['name', 'port', 'greeting', 'encryption', 'sign-in', 'listing', 'transfers', 'document roots'],
            array_map(static fn (Rung $rung): string => $rung->name, $ascent->rungs),
            (string) $ascent->broken()?->evidence,
        );
        self::assertSame(1, substr_count($ssh->log(), 'Accepted password'), 'one sign-in is enough');
    }

    public function test_a_server_that_lets_one_transfer_through_is_told_from_one_that_works(): void
    {
        $host = self::host();
        $host->faults(['data_refused_after' => 1]);
        self::assertBroke(
            'transfers',
            FailureReason::DataRefused,
            'session reuse',
            null,
            $this->climb($host->endpoint()),
        );
        self::assertBroke(
            'transfers',
            FailureReason::DataRefused,
            'whole range of passive ports',
            null,
            $this->climb(self::with($host->endpoint(), Protocol::Ftp)),
        );
        $host->faults(['data_refused_after' => 2]);
        $broken = $this->climb($host->endpoint())->broken();
        self::assertSame('transfers', $broken?->name);
        self::assertContains($broken->reason, [FailureReason::DataRefused, FailureReason::Disconnected]);
        self::assertStringContainsString('A small file did not get there', $broken->evidence);
        self::assertStringContainsString('resume the TLS session', (string) $broken->cause);
        $host->faults(['alter' => true]);
        self::assertBroke(
            'transfers',
            FailureReason::Incomplete,
            'other bytes came back',
            null,
            $this->climb($host->endpoint()),
        );
        $host->faults(['lie' => true, 'claim' => true]);
        self::assertBroke(
            'transfers',
            FailureReason::Incomplete,
            'confirms what it does not keep',
            null,
            $this->climb($host->endpoint()),
        );
        $host->faults([]);
        self::assertSame([], glob("$host->home/.cellarium*"), 'nothing is left there, an empty file neither');
    }

    public function test_what_tls_needs_on_a_server_is_found_out_and_said(): void
    {
        $cases = [['1.2', true, TlsUse::Resuming], ['1.3', false, TlsUse::Newest], ['1.3', true, TlsUse::NewestOnce]];
        foreach ($cases as [$version, $reuse, $use]) {
            $daemon = new Proftpd($this->directory(), Protocol::FtpsExplicit, $version, $reuse);
            try {
                $daemon->layDirectory('www');
                $ascent = $this->climb($daemon->endpoint(), root: '/www');
                self::assertTrue($ascent->holds(), (string) $ascent->broken()?->evidence);
                self::assertSame($use, $ascent->tls);
                $said = implode(' ', array_map(static fn (Rung $rung): string => $rung->evidence, $ascent->rungs));
                self::assertSame($use !== TlsUse::Resuming, str_contains($said, 'TLS 1.3 only'));
                self::assertSame(['www'], array_values(array_diff((array) scandir($daemon->home), ['.', '..'])));
            } finally {
                $daemon->stop();
            }
        }
    }

    public function test_names_without_record_and_names_that_moved(): void
    {
        $nowhere = self::with(self::host()->endpoint(), host: 'nowhere.invalid', located: false);
        self::assertBroke('name', FailureReason::NameUnknown, 'misspelled', null, $this->climb($nowhere));
        self::assertBroke(
            'name',
            FailureReason::NameUnknown,
            'A or AAAA record',
            'address 127.0.0.1',
            $this->climb($nowhere, '127.0.0.1'),
        );
        $moved = $this->climb(self::with(self::host()->endpoint(), located: false), '192.0.2.7');
        self::assertTrue($moved->holds());
        self::assertStringContainsString('It was 192.0.2.7 before', (string) $moved->rungs[0]->cause);
        $own = $this->climb(self::with(self::host()->endpoint(), host: 'nowhere.invalid'));
        self::assertStringContainsString('record is missing', (string) $own->rungs[0]->cause);
    }

    public function test_wrong_ports(): void
    {
        $host = self::host();
        $closed = self::with($host->endpoint(), port: 1);
        self::assertBroke('port', FailureReason::Unreachable, 'The host is down', null, $this->climb($closed));
        self::assertBroke(
            'port',
            FailureReason::Unreachable,
            "port $host->ftpPort, usual for FTP, does answer",
            "port $host->ftpPort",
            $this->climb($closed, usualPorts: [$host->ftpPort => 'FTP']),
        );
        self::assertBroke(
            'greeting',
            FailureReason::EncryptionDemanded,
            'implicit TLS',
            'protocol ftps-implicit',
            $this->climb(self::with($host->endpoint(), port: $host->implicitPort)),
        );
        self::assertBroke(
            'greeting',
            FailureReason::TimedOut,
            'not the port',
            null,
            $this->climb(self::with($host->endpoint(), port: $host->webPort)),
        );
        self::assertBroke(
            'encryption',
            FailureReason::EncryptionRefused,
            'handshake failed',
            null,
            $this->climb(self::with($host->endpoint(), Protocol::FtpsImplicit, $host->ftpPort)),
        );
        $ssh = $this->ssh();
        self::assertBroke(
            'greeting',
            FailureReason::NotUnderstood,
            'speaks SFTP',
            'protocol sftp',
            $this->climb(self::with($host->endpoint(), port: $ssh->port)),
        );
        self::assertBroke(
            'greeting',
            FailureReason::NotUnderstood,
            'This is an FTP server',
            'protocol ftps',
            $this->climb(self::with($host->endpoint(), Protocol::Sftp)),
        );
    }

    public function test_encryption_that_is_demanded_and_encryption_that_is_missing(): void
    {
        self::host()->faults(['demand_tls' => true]);
        self::assertBroke(
            'sign-in',
            FailureReason::EncryptionDemanded,
            'Choose FTP over TLS',
            'protocol ftps',
            $this->climb(self::host()->endpoint(Protocol::Ftp)),
        );
        self::assertTrue($this->climb(self::host()->endpoint())->holds());
        $python = $this->python(tls: true);
        self::assertBroke(
            'sign-in',
            FailureReason::EncryptionDemanded,
            'Choose FTP over TLS',
            'protocol ftps',
            $this->climb(self::with($python, Protocol::Ftp)),
        );
        self::assertTrue($this->climb($python)->holds());
        $this->python?->stop();
        self::assertBroke(
            'encryption',
            FailureReason::EncryptionRefused,
            'can not do TLS',
            'protocol ftp',
            $this->climb(self::with($this->python(), Protocol::FtpsExplicit)),
        );
    }

    public function test_a_certificate_nobody_vouches_for_is_a_question_and_its_answer_is_held_to(): void
    {
        $host = self::host();
        $expected = explode(
            '=',
            trim(
                (string) shell_exec(
                    'openssl x509 -noout -fingerprint -sha256 -in '.escapeshellarg("$host->directory/server.pem"),
                ),
            ),
        )[1];
        $untrusted = self::with($host->endpoint(), trusting: false);
        $rung = self::assertBroke(
            'encryption',
            FailureReason::CertificateUntrusted,
            $expected,
            "identity $expected",
            $this->climb($untrusted),
        );
        self::assertStringContainsString('no known authority', (string) $rung->cause);
        self::assertStringContainsString(
            'another name',
            (string) self::assertBroke(
                'encryption',
                FailureReason::CertificateUntrusted,
                $expected,
                "identity $expected",
                $this->climb(self::with($host->endpoint(), host: 'elsewhere.example')),
            )->cause,
        );

        self::assertStringContainsString('signed by Cellarium stand-in authority', $rung->evidence);
        $pin = $rung->identity;
        self::assertNotNull($pin);
        $accepted = $this->climb($untrusted->pinned($pin));
        self::assertTrue($accepted->holds(), (string) $accepted->broken()?->evidence);
        $other = new Pin('AA:BB', base64_encode(random_bytes(32)));
        $changed = self::assertBroke(
            'encryption',
            FailureReason::IdentityChanged,
            'Accepted was AA:BB',
            "identity $expected",
            $this->climb($host->endpoint()->pinned($other)),
        );
        self::assertStringContainsString('Nothing was sent', (string) $changed->next);
        try {
            (new FtpRemoteDirectory($host->endpoint()->pinned($other)))->list(RemotePath::root());
            self::fail('It was let through.');
        } catch (\Cellarium\Core\Connection\RemoteFailure $failure) {
            self::assertSame(FailureReason::IdentityChanged, $failure->reason);
        }
    }

    public function test_host_keys_are_asked_about_and_held_to(): void
    {
        $ssh = $this->ssh();
        $rung = self::assertBroke(
            'encryption',
            FailureReason::IdentityUnseen,
            $ssh->fingerprint(),
            'identity '.$ssh->fingerprint(),
            $this->climb($ssh->endpoint()->pinned(null)),
        );
        self::assertSame($ssh->pin()->key, $rung->identity?->key);
        self::assertBroke(
            'encryption',
            FailureReason::IdentityChanged,
            'Accepted was',
            'identity '.$ssh->fingerprint(),
            $this->climb($ssh->endpoint()->pinned(Pin::ofHostKey('other'))),
        );
        self::assertStringNotContainsString('password', $ssh->log());
    }

    public function test_sign_ins_that_are_refused_and_why(): void
    {
        $host = self::host();
        self::assertBroke(
            'sign-in',
            FailureReason::SignInRefused,
            'short of its domain',
            'login harbour@site.example',
            $this->climb($host->endpoint(password: 'wrong')),
        );
        self::assertBroke(
            'sign-in',
            FailureReason::SignInRefused,
            'letter by letter',
            null,
            $this->climb($host->endpoint(login: 'who@site.example')),
        );
        $python = $this->python();
        self::assertBroke(
            'sign-in',
            FailureReason::SignInRefused,
            'short of its domain',
            'login harbou@site.example',
            $this->climb(self::with($python, login: 'harbou'), answerSeconds: 8),
        );
        $this->python?->stop();
        $host->faults(['refuse' => true]);
        self::assertBroke(
            'sign-in',
            FailureReason::TooManyConnections,
            'fewer connections',
            null,
            $this->climb($host->endpoint()),
        );
        $ssh = $this->ssh('PasswordAuthentication no');
        self::assertBroke('sign-in', FailureReason::KeyNeeded, 'private key', null, $this->climb($ssh->endpoint()));
        $full = $this->python(most: 1);
        $busy = stream_socket_client("tcp://127.0.0.1:$full->port");
        self::assertNotFalse($busy);
        fgets($busy);
        self::assertBroke('greeting', FailureReason::TooManyConnections, 'turns away', null, $this->climb($full));
    }

    public function test_data_connections_that_are_named_wrongly_and_roots_that_are_gone(): void
    {
        self::host()->faults(['passive_address' => '10.11.12.13']);
        foreach ([self::host()->endpoint(), $this->python('EPSV', '10.11.12.13')] as $endpoint) {
            $ascent = $this->climb($endpoint);
            self::assertTrue($ascent->holds(), (string) $ascent->broken()?->evidence);
            self::assertStringContainsString(
                'the private address 10.11.12.13 for data; 127.0.0.1',
                (string) $ascent->rungs[5]->cause,
            );
        }
        self::assertBroke(
            'document roots',
            FailureReason::NotFound,
            '/htdocs for site.example',
            null,
            $this->climb(self::host()->endpoint(), root: '/htdocs'),
        );
    }
}
