<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Account\Protocol;
use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\RemoteDirectory;
use Tests\Support\RemoteDirectoryContract;
use Tests\Support\StandinHost;

final class StandinPlainTest extends RemoteDirectoryContract
{
    private ?StandinHost $host = null;

    protected function remote(): RemoteDirectory
    {
        $this->host ??= new StandinHost;
        exec('rm -rf '.escapeshellarg($this->host->home).'/*');

        return new FtpRemoteDirectory($this->host->endpoint(Protocol::Ftp));
    }

    protected function tearDown(): void
    {
        self::assertSame('', $this->host?->errors());
        $this->host?->stop();
    }
}
