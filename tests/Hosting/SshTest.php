<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\PrivateKey;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\SftpRemoteDirectory;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Proof\ReachProof;
use Cellarium\Core\Reach\MeantReach;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\SendFile;
use Cellarium\Core\Transfer\WorkerPool;
use Tests\Support\FixedClock;
use Tests\Support\RemoteDirectoryContract;
use Tests\Support\Scratch;
use Tests\Support\SshServer;

/** SFTP against Debian's openssh-server: the contract, keys, and a host key that is held to. */
final class SshTest extends RemoteDirectoryContract
{
    use Scratch {
        tearDown as private sweep;
    }

    private ?SshServer $server = null;

    private function server(string ...$more): SshServer
    {
        return $this->server = new SshServer($this->directory(), array_values($more));
    }

    protected function remote(): RemoteDirectory
    {
        return new SftpRemoteDirectory($this->server()->endpoint());
    }

    protected function tearDown(): void
    {
        $this->server?->stop();
        $this->sweep();
    }

    public function test_a_server_that_trickles_ends_in_words_though_it_is_never_silent(): void
    {
        $server = $this->server();
        file_put_contents($server->home.'/large.bin', random_bytes(400_000));
        // Signing in and the first of the file go at full speed, then a byte each tenth of a second.
        $proxy = proc_open(
            [PHP_BINARY, dirname(__DIR__).'/Support/trickling-proxy.php', (string) $server->port, '60000'],
            [1 => ['pipe', 'w']],
            $pipes,
        );
        self::assertIsResource($proxy);
        try {
            $remote = new SftpRemoteDirectory(
                $server->endpoint()->through(Protocol::Sftp, (int) fgets($pipes[1])),
                new ConnectionSettings(answerSeconds: 4),
            );
            $sink = fopen('php://temp', 'w+b');
            self::assertIsResource($sink);
            $remote->read(RemotePath::fromString('/large.bin'), $sink, 400_000);
            self::fail('It came whole.');
        } catch (RemoteFailure $failure) {
            self::assertSame(FailureReason::TimedOut, $failure->reason, $failure->getMessage());
            self::assertStringContainsString('reading /large.bin', $failure->getMessage());
        } finally {
            proc_terminate($proxy);
            proc_close($proxy);
        }
    }

    public function test_keys_open_it_with_and_without_passphrase(): void
    {
        $server = $this->server('PasswordAuthentication no');
        foreach (
            [
                ['ed', 'ed25519', ''],
                ['ed-locked', 'ed25519', 'two words'],
                ['rsa', 'rsa', ''],
                ['rsa-locked', 'rsa', 'two words'],
            ] as [$name, $type, $passphrase]
        ) {
            $text = $server->key($name, $type, $passphrase);
            $server->authorize($name);
            $key = PrivateKey::read($text, new Secret($passphrase));
            self::assertStringContainsString($type === 'rsa' ? 'RSA, 3072 bit' : 'Ed25519', $key->kind);
            self::assertSame(
                [],
                (new SftpRemoteDirectory($server->endpoint('', $key->open->reveal())))->list(RemotePath::root()),
                $name,
            );
        }
        $this->assertRefused(FailureReason::KeyNeeded, new SftpRemoteDirectory($server->endpoint()));
        $other = PrivateKey::read($server->key('unknown', 'ed25519'), new Secret(''));
        $this->assertRefused(
            FailureReason::SignInRefused,
            new SftpRemoteDirectory($server->endpoint('', $other->open->reveal())),
        );
    }

    public function test_a_key_that_cannot_be_opened_is_said(): void
    {
        $text = $this->server()->key('locked', 'ed25519', 'right');
        foreach (
            [
                [$text, 'wrong', 'The passphrase does not open this key.'],
                [$text, '', 'This key is locked: it needs its passphrase.'],
                ['no key', '', 'This is not a private key.'],
                [
                    (string) file_get_contents(dirname((string) $this->server?->home).'/locked.pub'),
                    '',
                    'This is the public half; the private key is needed.',
                ],
            ] as [$key, $passphrase, $words]
        ) {
            try {
                PrivateKey::read($key, new Secret($passphrase));
                self::fail($words);
            } catch (\UnexpectedValueException $wrong) {
                self::assertStringStartsWith($words, $wrong->getMessage());
            }
        }
    }

    public function test_an_unseen_or_changed_host_key_stops_before_the_password_is_sent(): void
    {
        $server = $this->server();
        $endpoint = $server->endpoint();
        $unseen = new Endpoint(
            $endpoint->host,
            $endpoint->port,
            $endpoint->protocol,
            $endpoint->login,
            $endpoint->password,
            '127.0.0.1',
        );
        self::assertStringContainsString(
            $server->fingerprint(),
            $this->assertRefused(FailureReason::IdentityUnseen, new SftpRemoteDirectory($unseen)),
        );
        $other = \Cellarium\Core\Connection\Pin::ofHostKey('another');
        $said = $this->assertRefused(
            FailureReason::IdentityChanged,
            new SftpRemoteDirectory($endpoint->pinned($other)),
        );
        self::assertStringContainsString($server->fingerprint(), $said);
        self::assertStringContainsString($other->fingerprint, $said);
        self::assertStringNotContainsString('password', $server->log(), 'nothing was tried');
        $this->assertRefused(FailureReason::SignInRefused, new SftpRemoteDirectory($server->endpoint('wrong')));
        self::assertSame(1, substr_count($server->log(), 'Failed password'), 'a refused password is tried once');
    }

    public function test_links_are_told_apart_and_workers_carry_files_over_it(): void
    {
        $server = $this->server();
        symlink('/etc', "$server->home/way-out");
        mkdir("$server->home/12");
        $kinds = [];
        foreach ((new SftpRemoteDirectory($server->endpoint()))->list(RemotePath::root()) as $entry) {
            $kinds[$entry->name] = $entry->kind;
        }
        self::assertEquals(['way-out' => EntryKind::Link, 12 => EntryKind::Directory], $kinds);
        file_put_contents("$server->home/../local", str_repeat('x', 300_000));
        $pool = new WorkerPool($server->endpoint(), 3);
        $pool->run(
            array_map(
                static fn (int $n): Job => new SendFile(
                    "$server->home/../local",
                    RemotePath::fromString("/f$n"),
                    300_000,
                    "f$n",
                ),
                range(1, 9),
            ),
        );
        $pool->close();
        for ($n = 1; $n <= 9; $n++) {
            self::assertFileEquals("$server->home/../local", "$server->home/f$n");
        }
    }

    public function test_an_sftp_login_that_lands_elsewhere_is_caught_and_links_tell_where_they_point(): void
    {
        $server = $this->server();
        mkdir("$server->home/site/img", 0755, true);
        symlink('site', "$server->home/link");
        $user = new SftpRemoteDirectory($server->endpoint());
        self::assertSame(['img'], array_column($user->listAt('site'), 'name'));
        self::assertSame([true, false], [$user->sees('site/img'), $user->sees('site/gone')]);
        self::assertSame('site', array_column($user->landing(), 'target', 'name')['link']);
        $meant = new MeantReach('login', RemotePath::fromString('/site'));
        $evidence = (new ReachProof(
            $meant,
            $user,
            new SftpRemoteDirectory($server->endpoint()),
            'n1',
            new FixedClock(),
        ))->open();
        self::assertSame('landing', $evidence->broken()?->name, 'it lands in the account and not in the site');
        self::assertSame(
            ['link', 'site'],
            array_values(array_diff(scandir($server->home) ?: [], ['.', '..'])),
            'nothing is left behind',
        );
    }

    private function assertRefused(FailureReason $reason, RemoteDirectory $remote): string
    {
        try {
            $remote->list(RemotePath::root());
        } catch (RemoteFailure $failure) {
            self::assertSame($reason, $failure->reason, $failure->getMessage());

            return $failure->getMessage();
        }
        self::fail('It was let in.');
    }
}
