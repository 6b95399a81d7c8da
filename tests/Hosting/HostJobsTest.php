<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Backup\Backup;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Backup\PackedFetch;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\ControlService;
use Cellarium\Core\Hosting\HostJob;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Hosting\HostJobState;
use Cellarium\Core\Hosting\HostWork;
use Cellarium\Core\Hosting\LinkedJobs;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\WorkerPool;
use Cellarium\Core\Web\CurlWebClient;
use Tests\Support\FixedClock;
use Tests\Support\HostTestCase;
use Tests\Support\Listed;
use Tests\Support\Scratch;
use Tests\Support\StandinHost;
use Tests\Support\TestStore;
use ZipArchive;

/** Packing, unpacking and moving at a host, with archives and accounts that are not as they should be. */
final class HostJobsTest extends HostTestCase
{
    use Scratch;

    private const SITE = '/www/site.example';

    private static int $asked = 0;

    protected function tearDown(): void
    {
        self::host()->faults([]);
        parent::tearDown();
    }

    private static function jobs(): LinkedJobs
    {
        return new LinkedJobs(new ControlService(
            'http://127.0.0.1:'.self::host()->controlPort,
            new Secret(StandinHost::TOKEN),
            new CurlWebClient(static fn (): ?string => null),
        ));
    }

    /** @param  \Closure(LinkedJobs, string): HostJob  $begin */
    private static function finish(\Closure $begin): HostJob
    {
        $id = 'test-job-'.self::$asked++;

        return (new HostWork(self::jobs()))->finish('a trial', static fn (LinkedJobs $jobs) => $begin($jobs, $id));
    }

    private static function unpack(string $archive): HostJob
    {
        return self::finish(static fn (LinkedJobs $jobs, string $id): HostJob => $jobs->unpack(
            $id,
            RemotePath::fromString("/www/$archive"),
            RemotePath::fromString('/www/unpacked'),
        ));
    }

    /** @param  \Closure(ZipArchive): void  $fill */
    private static function archive(string $name, \Closure $fill): void
    {
        $zip = new ZipArchive;
        $zip->open(self::host()->home."/www/$name", ZipArchive::CREATE | ZipArchive::OVERWRITE);
        $fill($zip);
        $zip->close();
    }

    public function test_what_is_unpacked_has_its_bytes_and_its_mode(): void
    {
        self::archive('good.zip', static function (ZipArchive $zip): void {
            $zip->addFromString('a/b c/ü.txt', 'text');
            $zip->setExternalAttributesName('a/b c/ü.txt', ZipArchive::OPSYS_UNIX, 0100640 << 16);
            $zip->addEmptyDir('empty');
        });

        $job = self::unpack('good.zip');

        self::assertSame([HostJobState::Done, $job->total], [$job->state, $job->done]);
        $file = self::host()->home.'/www/unpacked/a/b c/ü.txt';
        self::assertStringEqualsFile($file, 'text');
        self::assertSame(0640, fileperms($file) & 07777);
        self::assertDirectoryExists(self::host()->home.'/www/unpacked/empty');
    }

    public function test_an_archive_that_leads_out_or_does_not_fit_is_refused_and_nothing_outside_is_touched(): void
    {
        self::archive('out.zip', static function (ZipArchive $zip): void {
            $zip->addFromString('../../../escaped.txt', 'x');
        });
        self::archive('link.zip', static function (ZipArchive $zip): void {
            $zip->addFromString('link', '/etc');
            $zip->setExternalAttributesName('link', ZipArchive::OPSYS_UNIX, 0120777 << 16);
        });
        self::archive('large.zip', static function (ZipArchive $zip): void {
            $zip->addFromString('zeros', str_repeat("\0", 9_000_000));
        });
        file_put_contents(self::host()->home.'/www/none.zip', 'no archive at all');
        foreach (['out', 'link', 'large', 'none'] as $name) {
            try {
                self::unpack("$name.zip");
                self::fail("$name was unpacked");
            } catch (ControlFailure $refused) {
                self::assertStringContainsString('the host said', $refused->getMessage());
            }
        }
        self::assertFileDoesNotExist(dirname(self::host()->home, 2).'/escaped.txt');
        self::assertFileDoesNotExist(self::host()->home.'/www/unpacked/zeros');
    }

    public function test_names_are_given_one_after_the_other_and_never_over_what_is_there(): void
    {
        $home = self::host()->home;
        mkdir("$home/www/new");
        file_put_contents("$home/www/new/index.html", 'new');
        $at = static fn (string $path): RemotePath => RemotePath::fromString("/www/$path");

        $job = self::finish(static fn (LinkedJobs $jobs, string $id): HostJob => $jobs->move($id, [
            [$at('other.example'), $at('old')],
            [$at('new'), $at('site.example')],
            [$at('new'), $at('other.example')],
        ]));

        self::assertSame(['', 'There is something of that name.', ''], $job->refused);
        self::assertStringEqualsFile("$home/www/other.example/index.html", 'new');
        rename("$home/www/other.example", "$home/www/new-again");
        rename("$home/www/old", "$home/www/other.example");
    }

    public function test_an_answer_that_is_lost_is_asked_for_again_and_begins_nothing_twice(): void
    {
        self::archive('once.zip', static fn (ZipArchive $zip) => $zip->addFromString('once.txt', 'x'));
        self::host()->faults(['lose_answer' => true]);
        $jobs = self::jobs();
        try {
            $jobs->unpack('lost-answer', RemotePath::fromString('/www/once.zip'), RemotePath::fromString('/www/once'));
            self::fail('an answer came');
        } catch (ControlFailure) {
            self::host()->faults([]);
        }
        (new HostWork($jobs))->finish('a trial', static fn (LinkedJobs $jobs): HostJob => $jobs->unpack(
            'lost-answer',
            RemotePath::fromString('/www/not-there-any-more.zip'),
            RemotePath::fromString('/www/once'),
        ));
        self::assertFileExists(self::host()->home.'/www/once/once.txt');
    }

    private function backup(): Backup
    {
        $settings = TestStore::settings($this->directory());
        $pool = new WorkerPool(self::host()->endpoint(), 2, store: $settings);
        $store = $settings->open();
        $root = RemotePath::fromString(self::SITE);
        try {
            return (new BackupTaker($pool, $store, new BackupShelf($this->directory()), new FixedClock))->take(
                Listed::at($pool, $root),
                null,
                new PackedFetch($pool, new HostJobs(self::jobs(), $root), $root, 'backup'.self::$asked++),
            );
        } finally {
            $pool->close();
        }
    }

    public function test_a_backup_comes_as_one_archive_or_file_by_file_and_holds_the_same(): void
    {
        $home = self::host()->home;
        for ($number = 0; $number < PackedFetch::FROM; $number++) {
            @mkdir("$home/www/site.example/img");
            file_put_contents("$home/www/site.example/img/$number.svg", "<svg $number/>");
        }
        $packed = $this->backup();
        self::host()->faults(['jobs_fail_at' => 0]);
        $broken = $this->backup();
        self::host()->faults(['no_jobs' => true]);
        $plain = $this->backup();

        self::assertSame($plain->manifest->digest(), $packed->manifest->digest());
        self::assertSame($plain->manifest->digest(), $broken->manifest->digest());
        foreach ($plain->manifest->files() as $file) {
            self::assertSame($file->sha256, $packed->manifest->get($file->path)?->sha256);
            self::assertSame($file->sha256, $broken->manifest->get($file->path)?->sha256);
        }
        self::assertSame([], glob("$home/www/.cellarium-*"));
    }
}
