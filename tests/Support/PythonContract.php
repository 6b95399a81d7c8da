<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Standin\World\CertificateMaker;

/** The contract against a server nobody here wrote. */
abstract class PythonContract extends RemoteDirectoryContract
{
    use Scratch {
        tearDown as private sweep;
    }

    private ?PythonFtpServer $server = null;

    abstract protected function start(string $home, string $certificate, string $authorities): PythonFtpServer;

    protected function remote(): RemoteDirectory
    {
        $own = $this->directory();
        (new CertificateMaker($own))->make([StandinHost::HOST]);
        $this->server = $this->start($this->directory(), "$own/server.pem", "$own/ca.pem");

        return new FtpRemoteDirectory($this->server->endpoint());
    }

    protected function tearDown(): void
    {
        $this->server?->stop();
        $this->sweep();
    }
}
