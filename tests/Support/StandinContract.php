<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteDirectory;

/** The contract against the stand-in host, in one of its manners. */
abstract class StandinContract extends RemoteDirectoryContract
{
    private ?StandinHost $host = null;

    abstract protected function protocol(): Protocol;

    /** @return array<string, mixed> */
    protected function manners(): array
    {
        return [];
    }

    protected function remote(): RemoteDirectory
    {
        $this->host ??= new StandinHost;
        exec('rm -rf '.escapeshellarg($this->host->home).'/*');
        $this->host->faults($this->manners());

        return new FtpRemoteDirectory($this->host->endpoint($this->protocol()));
    }

    protected function tearDown(): void
    {
        $errors = $this->host?->errors();
        $this->host?->stop();
        self::assertSame('', $errors);
    }
}
