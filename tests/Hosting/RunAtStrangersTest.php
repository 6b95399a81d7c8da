<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunEnd;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Deployment\RunTools;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Transfer\WorkerPool;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\FtpDaemon;
use Tests\Support\Proftpd;
use Tests\Support\PureFtpd;
use Tests\Support\QuietListener;
use Tests\Support\QuietRuns;
use Tests\Support\QuietSite;
use Tests\Support\Scratch;
use Tests\Support\SshServer;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;
use Tests\Support\Vsftpd;

/** Whole runs over several connections, at servers that nobody here wrote; everything that was sent is read back. */
final class RunAtStrangersTest extends TestCase
{
    use Scratch;

    private string $own;

    protected function setUp(): void
    {
        $this->own = $this->directory();
    }

    /** @return iterable<string, array{class-string<FtpDaemon>|null, Protocol}> */
    public static function servers(): iterable
    {
        foreach ([Vsftpd::class, Proftpd::class, PureFtpd::class] as $daemon) {
            foreach ([Protocol::Ftp, Protocol::FtpsExplicit] as $protocol) {
                yield strrchr($daemon, '\\')." $protocol->value" => [$daemon, $protocol];
            }
        }
        yield 'OpenSSH' => [null, Protocol::Sftp];
    }

    /** @param  class-string<FtpDaemon>|null  $daemon */
    #[DataProvider('servers')]
    public function test_a_site_is_put_there_changed_by_somebody_and_replaced(?string $daemon, Protocol $protocol): void
    {
        $server = $daemon === null
            ? new SshServer($this->directory())
            : new $daemon($this->directory(), $protocol, $protocol === Protocol::Ftp ? '' : 'any');
        try {
            $first = ['index.html' => 'one', 'big.bin' => str_repeat('0123456789', 150_000)];
            for ($number = 0; $number < 12; $number++) {
                $first["img/deep/$number.svg"] = "<svg $number/>";
            }
            $result = $this->carryOut($server->endpoint(), 'first', $first);
            self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
            self::assertSame(14, $result->readBack);
            self::assertSame($first['img/deep/7.svg'], file_get_contents("$server->home/img/deep/7.svg"));

            file_put_contents("$server->home/index.html", 'changed by somebody');
            $second = ['index.html' => 'two', 'img/deep/7.svg' => '<svg seven/>'] + $first;
            $asked = $this->carryOut($server->endpoint(), 'asked', $second, $result->after);
            self::assertSame(RunEnd::Refused, $asked->end);
            self::assertStringContainsString('index.html changed on the server', (string) $asked->cause?->getMessage());
            $done = $this->carryOut(
                $server->endpoint(),
                'second',
                $second,
                $result->after,
                Answers::all(Choice::Both),
                proofMost: 2,
            );
            self::assertSame(RunEnd::Proven, $done->end, (string) $done->cause?->getMessage());
            self::assertSame([2, 3], [$done->readBack, $done->readBackOf], 'a sample, and of how many');
            self::assertSame('two', file_get_contents("$server->home/index.html"));
            self::assertSame('<svg seven/>', file_get_contents("$server->home/img/deep/7.svg"));
            $beside = glob("$server->home/index.live*.html") ?: [];
            self::assertCount(1, $beside);
            self::assertSame('changed by somebody', file_get_contents($beside[0]));
            self::assertSame([], glob("$server->home/{,img/,img/deep/}.cellarium-*", GLOB_BRACE));
        } finally {
            $server->stop();
        }
    }

    /** @param  class-string<FtpDaemon>|null  $daemon */
    #[DataProvider('servers')]
    public function test_a_document_root_that_is_a_mount_is_found_out_before_anything_is_laid(
        ?string $daemon,
        Protocol $protocol,
    ): void {
        $server = $daemon === null
            ? new SshServer($this->directory())
            : new $daemon($this->directory(), $protocol, $protocol === Protocol::Ftp ? '' : 'any');
        $site = "$server->home/site";
        mkdir($site);
        exec('mount -t tmpfs none '.escapeshellarg($site).' 2>&1', $said, $status);
        try {
            $status === 0 || self::markTestSkipped('Nothing can be mounted here: '.implode(' ', $said));
            file_put_contents("$site/index.html", 'old');
            exec('chown -R '.fileowner($server->home).' '.escapeshellarg($site));
            $result = $this->carryOut(
                $server->endpoint(),
                'swap',
                ['index.html' => 'new', 'about.html' => 'new'],
                way: Way::Swap,
                root: '/site',
            );

            self::assertSame(RunEnd::Refused, $result->end, (string) $result->cause?->getMessage());
            self::assertStringContainsString(
                'The document root cannot be swapped for another directory: the server does not rename /site: ',
                (string) $result->cause?->getMessage(),
            );
            self::assertStringEqualsFile("$site/index.html", 'old');
            self::assertSame(['site'], array_values(array_diff(scandir($server->home) ?: [], ['.', '..'])));
        } finally {
            $server->stop();
            $status === 0 && exec('umount '.escapeshellarg($site));
        }
    }

    /** @param  array<string, string>  $files */
    private function carryOut(
        Endpoint $endpoint,
        string $id,
        array $files,
        ?Manifest $left = null,
        ?Answers $answers = null,
        Way $way = Way::FileByFile,
        string $root = '/',
        ?int $proofMost = null,
    ): RunResult {
        $store = TestStore::in("$this->own/contents");
        $pool = new WorkerPool($endpoint, 3, store: TestStore::settings("$this->own/contents"));
        try {
            return (new Run(
                new RunTools(
                    $pool,
                    $store,
                    new BackupShelf("$this->own/backups"),
                    new FileJournal("$this->own/$id"),
                    new FixedClock,
                ),
                new QuietListener,
                null,
                new QuietSite,
                new QuietRuns,
            ))->carryOut(new RunOrder(
                $id,
                RemotePath::fromString($root),
                StoredFiles::in($store, $files),
                new Policy(ours: array_keys($files)),
                EarlierLook::never(),
                null,
                ['index.html'],
                left: $left,
                answers: $answers,
                believesHashes: true,
                way: $way,
                lingerSeconds: 0,
                proofMost: $proofMost,
            ));
        } finally {
            $pool->close();
        }
    }
}
