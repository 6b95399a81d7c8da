<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunEnd;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Deployment\RunTools;
use Cellarium\Core\Hosting\ControlService;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Hosting\LinkedJobs;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Transfer\WorkerPool;
use Cellarium\Core\Web\CurlWebClient;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\DelayingProxy;
use Tests\Support\FixedClock;
use Tests\Support\FtpDaemon;
use Tests\Support\Proftpd;
use Tests\Support\PureFtpd;
use Tests\Support\QuietListener;
use Tests\Support\QuietRuns;
use Tests\Support\QuietSite;
use Tests\Support\Scratch;
use Tests\Support\SshServer;
use Tests\Support\StandinHost;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;
use Tests\Support\Visitor;
use Tests\Support\Visits;
use Tests\Support\Vsftpd;
use Tests\Support\WebServer;

/**
 * A site is replaced while somebody asks for every page and all that belongs to it 50 times a second, by each of the
 * ways, at servers and a web server that nobody here wrote.
 */
final class VisitorTest extends TestCase
{
    use Scratch;

    private const PAGES = ['/', '/about.html', '/shop/list.html'];

    /** For data connections of the daemons. */
    private const PORTS = [19_100, 19_139];

    /** For which a site replaced file by file may be mixed here, in milliseconds; its plan says what to expect. */
    private const MOSTLY_MIXED = 1_500;

    /** @return iterable<string, array{Way, class-string<FtpDaemon>|'ssh'|'host', bool}> */
    public static function ways(): iterable
    {
        $servers = [
            [Way::FileByFile, PureFtpd::class],
            [Way::Swap, Vsftpd::class],
            [Way::Swap, Proftpd::class],
            [Way::Swap, PureFtpd::class],
            [Way::Swap, 'ssh'],
            [Way::Unpack, 'host'],
        ];
        foreach ($servers as $number => [$way, $server]) {
            $name = "$way->value at ".ltrim((string) strrchr("\\$server", '\\'), '\\');
            $number % 4 === 2 || yield "$name, assets that keep their names" => [$way, $server, true];
            $number % 4 === 3 || yield "$name, assets named after their version" => [$way, $server, false];
        }
    }

    /** @var list<string> a line for each site that was replaced */
    private static array $seen = [];

    public static function tearDownAfterClass(): void
    {
        fwrite(STDERR, "\nWhat visitors got\n".implode("\n", self::$seen)."\n");
        self::$seen = [];
    }

    #[DataProvider('ways')]
    public function test_visitors_get_whole_pages_of_one_version(Way $way, string $server, bool $keepsNames): void
    {
        // Names change within some ten microseconds, in which a request falls once in some hundred runs.
        $visits = $this->replaced($way, $server, $keepsNames);
        $visits = $way->laysTree() && $visits->bad !== [] ? $this->replaced($way, $server, $keepsNames) : $visits;

        self::assertSame([], $visits->bad, count($visits->bad)." of $visits->requests answers");
        self::assertGreaterThan(20, $visits->old, 'somebody saw the old version');
        self::assertGreaterThan(20, $visits->new, 'somebody saw the new version');
        $way->laysTree()
            ? self::assertSame(0.0, $visits->mixedMilliseconds, 'one moment parts all that is old from all that is new')
            : self::assertLessThan(self::MOSTLY_MIXED, $visits->mixedMilliseconds);
    }

    private function replaced(Way $way, string $kind, bool $keepsNames): Visits
    {
        $own = $this->directory();
        $server = match ($kind) {
            'ssh' => new SshServer($this->directory()),
            'host' => new StandinHost,
            default => new $kind($this->directory(), Protocol::FtpsExplicit, passivePorts: self::PORTS),
        };
        // Whoever waits for an answer between two names would be seen.
        $far = $server instanceof StandinHost ? null : new DelayingProxy(
            10,
            [$server->port, ...($server instanceof FtpDaemon ? range(...self::PORTS) : [])],
        );
        $root = $kind === 'host' ? '/www/site.example' : '/site';
        $owner = $server instanceof FtpDaemon ? (int) fileowner($server->home) : posix_geteuid();
        $before = self::site('old', $keepsNames);
        $after = self::site('new', $keepsNames);
        self::put("$server->home$root", $before + ['uploads/photo.jpg' => 'theirs'], $owner);
        $web = new WebServer($this->directory(), "$server->home$root");
        try {
            $visitor = new Visitor($web->port, self::PAGES);
            $result = $this->carryOut(
                $far === null ? $server->endpoint() : $server->endpoint()->at(DelayingProxy::ADDRESS),
                new RunOrder(
                    'visited',
                    RemotePath::fromString($root),
                    StoredFiles::in(TestStore::in("$own/contents"), $after),
                    new Policy(PathPattern::all(['uploads/']), ours: array_keys($before)),
                    EarlierLook::never(),
                    null,
                    ['index.html'],
                    way: $way,
                ),
                $own,
                $server instanceof StandinHost ? self::atHost($server) : null,
            );
            $answers = $visitor->leave();
            self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
            self::assertNull($result->leftBehind);
            self::assertStringEqualsFile("$server->home$root/uploads/photo.jpg", 'theirs');
            self::assertSame([], glob("$server->home{,/www}/.cellarium-*", GLOB_BRACE));
        } finally {
            $web->stop();
            $far?->stop();
            $server->stop();
        }

        $visits = new Visits($answers, $before, $after);
        self::$seen[] = sprintf(
            '  %-12s %-8s %-24s %5d requests, %d bad, mixed for %.0f ms',
            $way->value,
            ltrim((string) strrchr("\\$kind", '\\'), '\\'),
            $keepsNames ? 'assets keep their names' : 'assets have new names',
            $visits->requests,
            count($visits->bad),
            $visits->mixedMilliseconds,
        );

        return $visits;
    }

    /**
     * Pages that name what belongs to them; large enough that a half one would be seen.
     *
     * @return array<string, string> contents by path
     */
    private static function site(string $version, bool $keepsNames): array
    {
        $tag = $keepsNames ? '' : ".$version";
        $files = ["css/app$tag.css" => "/* $version */", "js/app$tag.js" => "// $version"];
        foreach (['index.html', 'about.html', 'shop/list.html'] as $page) {
            $files[$page] = "<!doctype html><title>$version</title><link rel=\"stylesheet\" href=\"/css/app$tag.css\">"
                ."<script src=\"/js/app$tag.js\"></script><p>$page ".str_repeat("$version ", 3000);
        }
        for ($number = 0; $number < 16; $number++) {
            $files["img/$number.svg"] = $number < 8 ? "<svg $number/>" : "<svg $number $version/>";
        }

        return $files;
    }

    /** @param  array<string, string>  $files */
    private static function put(string $directory, array $files, int $owner): void
    {
        foreach ($files as $path => $text) {
            @mkdir(dirname("$directory/$path"), 0755, true);
            file_put_contents("$directory/$path", $text);
        }
        exec('chown -R '.$owner.' '.escapeshellarg($directory));
    }

    private function carryOut(Endpoint $endpoint, RunOrder $order, string $own, ?HostJobs $host): RunResult
    {
        $pool = new WorkerPool($endpoint, 3, store: TestStore::settings("$own/contents"));
        try {
            return (new Run(
                new RunTools(
                    $pool,
                    TestStore::in("$own/contents"),
                    new BackupShelf("$own/backups"),
                    new FileJournal("$own/run"),
                    new FixedClock,
                ),
                new QuietListener,
                null,
                new QuietSite($host),
                new QuietRuns,
            ))->carryOut($order);
        } finally {
            $pool->close();
        }
    }

    private static function atHost(StandinHost $server): HostJobs
    {
        return new HostJobs(
            new LinkedJobs(new ControlService(
                "http://127.0.0.1:$server->controlPort",
                new Secret(StandinHost::TOKEN),
                new CurlWebClient(static fn (): ?string => null),
            )),
            RemotePath::fromString('/www/site.example'),
        );
    }
}
