<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\ListDirectory;
use Cellarium\Core\Transfer\Job\SendFile;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\WorkerPool;
use Cellarium\Core\Web\CurlWebClient;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\HostTestCase;
use Tests\Support\PythonFtpServer;

/** Our side against a host that misbehaves, over real sockets. */
final class StandinFaultsTest extends HostTestCase
{
    protected function tearDown(): void
    {
        self::host()->faults([]);
        parent::tearDown();
    }

    /** @return iterable<string, array{array<string, mixed>, list<FailureReason>}> */
    public static function faults(): iterable
    {
        yield 'refuse' => [['refuse' => true], [FailureReason::TooManyConnections]];
        yield 'dropped after commands' => [
            ['drop_after_commands' => 6],
            [FailureReason::Disconnected, FailureReason::TimedOut],
        ];
        yield 'dropped after bytes' => [['drop_after_bytes' => 100_000], [FailureReason::Disconnected]];
        yield 'full' => [['full_at_bytes' => 50_000], [FailureReason::NoSpace]];
        yield 'lies' => [['lie' => true], [FailureReason::Incomplete]];
        yield 'closes data early' => [['close_data_after' => 100_000], [FailureReason::Disconnected]];
        yield 'hangs' => [['hang' => true], [FailureReason::TimedOut]];
    }

    /**
     * @param  array<string, mixed>  $faults
     * @param  list<FailureReason>  $reasons
     */
    #[DataProvider('faults')]
    public function test_each_fault_is_told_for_what_it_is(array $faults, array $reasons): void
    {
        $file = $this->directory().'/x.bin';
        file_put_contents($file, random_bytes(400_000));
        self::host()->faults($faults);
        foreach ([Protocol::Ftp, Protocol::FtpsExplicit] as $protocol) {
            $runner = new \Cellarium\Core\Transfer\JobRunner(
                new FtpRemoteDirectory(self::host()->endpoint($protocol), new ConnectionSettings(5, 2)),
            );
            try {
                $runner->run(new SendFile($file, RemotePath::fromString('/www/x.bin'), 400_000, 'x.bin'));
                self::fail("It was taken for done over {$protocol->value}.");
            } catch (RemoteFailure $failure) {
                self::assertContains($failure->reason, $reasons, $protocol->value.': '.$failure->getMessage());
            }
        }
    }

    public function test_a_short_download_is_not_taken_for_the_file(): void
    {
        file_put_contents(self::host()->home.'/www/y.bin', random_bytes(300_000));
        self::host()->faults(['close_data_after' => 1000]);
        $this->expectException(RemoteFailure::class);
        (new \Cellarium\Core\Transfer\JobRunner(
            new FtpRemoteDirectory(self::host()->endpoint(), new ConnectionSettings(5, 2)),
        ))->run(new FetchFile(RemotePath::fromString('/www/y.bin'), $this->directory().'/y.bin', 300_000, 'y.bin'));
    }

    public function test_a_pool_gets_through_a_host_that_drops_connections_now_and_then(): void
    {
        $directory = $this->directory();
        $jobs = [];
        for ($number = 0; $number < 30; $number++) {
            file_put_contents("$directory/$number", str_repeat((string) $number, 1000));
            $jobs[] = new SendFile(
                "$directory/$number",
                RemotePath::fromString("/www/n$number"),
                1000 * strlen((string) $number),
                "n$number",
            );
        }
        self::host()->faults(['drop_after_commands' => 25]);
        $done = [];
        $pool = new WorkerPool(self::host()->endpoint(), 3);
        $pool->run($jobs, static function (Job $job, JobResult $result) use (&$done): void {
            $done[] = $job->subject;
        });
        $pool->close();
        self::assertCount(30, array_unique($done));
        for ($number = 0; $number < 30; $number++) {
            self::assertFileEquals("$directory/$number", self::host()->home."/www/n$number");
        }
    }

    public function test_a_pool_makes_do_with_fewer_connections_where_the_host_forbids_more(): void
    {
        $home = $this->directory();
        $server = new PythonFtpServer($home, '', null, 3);
        try {
            file_put_contents("$home/local", 'x');
            $done = 0;
            $pool = new WorkerPool($server->endpoint(), 6);
            $pool->run(
                array_map(
                    static fn (int $number): Job => new SendFile(
                        "$home/local",
                        RemotePath::fromString("/f$number"),
                        1,
                        "f$number",
                    ),
                    range(1, 40),
                ),
                static function () use (&$done): void {
                    $done++;
                },
            );
            $pool->close();
            self::assertSame(40, $done);
        } finally {
            $server->stop();
        }
    }

    public function test_a_refused_password_is_tried_once(): void
    {
        $pool = new WorkerPool(self::host()->endpoint(password: 'wrong'), 2);
        try {
            $pool->run([new ListDirectory(RemotePath::root())]);
            self::fail('It signed in.');
        } catch (TransferFailed $failed) {
            self::assertSame(FailureReason::SignInRefused, $failed->failure->reason);
        } finally {
            $pool->close();
        }
    }

    public function test_certificates_are_verified(): void
    {
        $endpoint = self::host()->endpoint();
        foreach (
            [
                new \Cellarium\Core\Connection\Endpoint(
                    $endpoint->host,
                    $endpoint->port,
                    $endpoint->protocol,
                    $endpoint->login,
                    $endpoint->password,
                    '127.0.0.1',
                ),
                new \Cellarium\Core\Connection\Endpoint(
                    'elsewhere.example',
                    $endpoint->port,
                    $endpoint->protocol,
                    $endpoint->login,
                    $endpoint->password,
                    '127.0.0.1',
                    $endpoint->authorities,
                ),
            ] as $wrong
        ) {
            try {
                (new FtpRemoteDirectory($wrong))->list(RemotePath::root());
                self::fail('It was trusted.');
            } catch (RemoteFailure $failure) {
                self::assertSame(FailureReason::CertificateUntrusted, $failure->reason);
            }
        }
    }

    public function test_many_addresses_are_fetched_together_and_each_has_its_own_answer(): void
    {
        $host = self::host();
        $web = new CurlWebClient(static fn (string $name): ?string => $name === 'site.example' ? '127.0.0.1' : null);
        $root = "$host->home/www/site.example";
        $urls = [];
        for ($page = 0; $page < 40; $page++) {
            file_put_contents("$root/page-$page.html", str_repeat("page $page ", 1 + 100 * ($page % 7)));
            $urls[] = "http://site.example:$host->webPort/page-$page.html";
        }
        $missing = "http://site.example:$host->webPort/missing.html";
        $nowhere = 'http://nowhere.example/';
        $answers = $web->fetchMany([$missing, $nowhere, ...$urls]);
        self::assertCount(42, $answers);
        foreach ($urls as $page => $url) {
            self::assertSame(
                [200, hash_file('sha256', "$root/page-$page.html")],
                [$answers[$url]->status, $answers[$url]->sha256],
            );
        }
        self::assertSame(404, $answers[$missing]->status);
        self::assertSame([0, true], [$answers[$nowhere]->status, $answers[$nowhere]->nameUnknown]);
    }

    public function test_sites_are_served_by_their_name(): void
    {
        $host = self::host();
        $web = new CurlWebClient(static fn (): string => '127.0.0.1');
        $at = static fn (string $name, string $path = '/') => $web->fetch("http://$name:$host->webPort$path");
        $root = "$host->home/www/site.example";
        self::assertStringContainsString('has not put a site here yet', $at('site.example')->head);
        file_put_contents("$root/Index.HTML", 'case matters');
        self::assertSame(404, $at('site.example', '/index.html')->status);
        file_put_contents("$root/index.htm", 'second');
        self::assertSame('second', $at('www.site.example')->head);
        file_put_contents("$root/index.html", 'first');
        self::assertSame('first', $at('site.example.localhost')->head);
        file_put_contents("$root/now.php", '<?php header("X-Kind: run"); echo 6 * 7, $_GET["q"] ?? "";');
        self::assertSame('42yes', $at('site.example', '/now.php?q=yes')->head);
        mkdir("$root/ä b");
        file_put_contents("$root/ä b/x.txt", 'x');
        self::assertStringContainsString('Index of /ä b', $at('site.example', '/%C3%A4%20b/')->head);
        self::assertStringEndsWith('/%C3%A4%20b/', (string) $at('site.example', '/%C3%A4%20b')->location);
        chmod("$root/ä b/x.txt", 0600);
        self::assertSame(403, $at('site.example', '/%C3%A4%20b/x.txt')->status);
        self::assertSame(404, $at('unknown.example')->status);
        foreach (['/../../../world.json', '/..%2f..%2f..%2fworld.json', '/%2e%2e/%2e%2e/%2e%2e/world.json'] as $path) {
            $raw = stream_socket_client("tcp://127.0.0.1:$host->webPort");
            self::assertNotFalse($raw);
            fwrite($raw, "GET $path HTTP/1.1\r\nHost: site.example\r\nConnection: close\r\n\r\n");
            self::assertStringNotContainsString('password_hash', (string) stream_get_contents($raw));
        }
    }
}
