<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Job\RenameFile;
use Cellarium\Core\Transfer\Job\SetMode;
use Cellarium\Core\Transfer\JobRunner;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FtpDaemon;
use Tests\Support\Proftpd;
use Tests\Support\PureFtpd;
use Tests\Support\Scratch;
use Tests\Support\Vsftpd;

/** Servers that forbid SITE CHMOD take files all the same, and it is known that they set no mode. */
final class NoModesTest extends TestCase
{
    use Scratch;

    /** @return iterable<string, array{class-string<FtpDaemon>, bool}> */
    public static function daemons(): iterable
    {
        foreach ([Vsftpd::class, Proftpd::class, PureFtpd::class] as $daemon) {
            foreach ([true, false] as $sets) {
                yield (string) strrchr($daemon, '\\').($sets ? ' sets them' : ' forbids it') => [$daemon, $sets];
            }
        }
    }

    /** @param  class-string<FtpDaemon>  $daemon */
    #[DataProvider('daemons')]
    public function test_a_file_gets_its_name_whether_or_not_its_mode_is_set(string $daemon, bool $sets): void
    {
        $server = new $daemon($this->directory(), Protocol::Ftp, '', setsModes: $sets);
        try {
            $runner = new JobRunner(new FtpRemoteDirectory($server->endpoint()));
            $server->lay('new.part', 'bytes');
            $server->layDirectory('data');
            $renamed = $runner->run(new RenameFile(
                RemotePath::fromString('/new.part'),
                RemotePath::fromString('/secret.ini'),
                0600,
                'secret.ini',
            ));
            $set = $runner->run(new SetMode(RemotePath::fromString('/data'), 0775, 'data'));

            self::assertSame([! $sets, ! $sets], [$renamed->modeRefused, $set->modeRefused]);
            self::assertSame('bytes', file_get_contents("$server->home/secret.ini"));
            self::assertSame(
                $sets ? [0600, 0775] : [0644, 0755],
                [fileperms("$server->home/secret.ini") & 0777, fileperms("$server->home/data") & 0777],
            );
        } finally {
            $server->stop();
        }
    }
}
