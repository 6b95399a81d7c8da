<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\ComputesHashes;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Transfer\Job\HashFile;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\JobRunner;
use Tests\Support\DaemonContract;
use Tests\Support\FtpDaemon;
use Tests\Support\Proftpd;

/** Machine listings, without encryption. */
final class ProftpdPlainTest extends DaemonContract
{
    protected function start(string $directory): FtpDaemon
    {
        return new Proftpd($directory, Protocol::Ftp, '');
    }

    public function test_it_computes_hashes_that_need_no_reading_back(): void
    {
        $remote = $this->remote();
        self::put($remote, '/a b.php', "one\r\ntwo\n");
        $ours = hash('sha256', "one\r\ntwo\n");
        $hash = fn (string $path): JobResult => (new JobRunner($remote))->run(new HashFile(
            self::path($path),
            9,
            $path,
            $ours,
        ));
        self::assertInstanceOf(ComputesHashes::class, $remote);
        self::assertSame('sha256', $remote->hash(self::path('/a b.php'))?->algorithm);
        self::assertSame($ours, $hash('/a b.php')->sha256);
        self::assertSame(0, $hash('/a b.php')->bytes, 'nothing was read');
        self::put($remote, '/other.php', "one\r\nTWO\n");
        $read = $hash('/other.php');
        self::assertSame([9, hash('sha256', "one\r\nTWO\n")], [$read->bytes, $read->sha256]);
        self::assertNull($hash('/nowhere.php')->sha256);
    }
}
