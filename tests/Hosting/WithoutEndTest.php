<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\Job\KeepFile;
use Cellarium\Core\Transfer\JobRunner;
use PHPUnit\Framework\TestCase;
use Tests\Support\EndlessFtpServer;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

/** What a hostile server sends without an end is read to a bound, and ends in words. */
final class WithoutEndTest extends TestCase
{
    use Scratch {
        tearDown as private sweep;
    }

    private EndlessFtpServer $server;

    protected function setUp(): void
    {
        $this->server = new EndlessFtpServer;
    }

    protected function tearDown(): void
    {
        $this->server->stop();
        $this->sweep();
    }

    private static function failure(\Closure $work): RemoteFailure
    {
        try {
            $work();
        } catch (RemoteFailure $failure) {
            return $failure;
        }
        self::fail('It came to an end by itself.');
    }

    public function test_a_file_is_read_to_what_was_listed_and_a_margin(): void
    {
        $own = $this->directory();
        $remote = new FtpRemoteDirectory($this->server->endpoint());
        $path = RemotePath::fromString('/endless.html');
        $listed = $remote->list(RemotePath::root());
        self::assertSame([['endless.html', 30]], [[$listed[0]->name, $listed[0]->size]]);
        $jobs = [
            'to a file' => new FetchFile($path, "$own/endless.html", 30, 'endless.html'),
            'to the store' => new KeepFile($path, 30, 'endless.html'),
            'to the store, as what changes' => new KeepFile($path, 30, 'endless.html', true),
        ];
        foreach ($jobs as $where => $job) {
            $failure = self::failure(
                static fn () => (new JobRunner($remote, TestStore::in("$own/contents")))->run($job),
            );
            self::assertSame(FailureReason::Incomplete, $failure->reason, $where);
            self::assertStringContainsString('and it went on', (string) $failure->serverSaid, $where);
        }
        exec('du -sb '.escapeshellarg($own), $said);
        self::assertLessThan(1_000_000, (int) $said[0], 'what lies here of it');
    }

    public function test_a_listing_that_trickles_ends(): void
    {
        $remote = new FtpRemoteDirectory(
            $this->server->endpoint(),
            new ConnectionSettings(answerSeconds: 1, leastBytesAMinute: 6_000),
        );
        $failure = self::failure(static fn () => $remote->list(RemotePath::fromString('/slow')));
        self::assertSame(FailureReason::TimedOut, $failure->reason, $failure->getMessage());
    }

    public function test_a_step_has_an_end_in_all_however_it_goes_on(): void
    {
        $remote = new FtpRemoteDirectory(
            $this->server->endpoint(),
            new ConnectionSettings(leastBytesAMinute: 60, stepSeconds: 1, mostListingBytes: 100_000),
        );
        $failure = self::failure(static fn () => $remote->list(RemotePath::fromString('/slow')));
        self::assertSame(FailureReason::TimedOut, $failure->reason, $failure->getMessage());
    }
}
