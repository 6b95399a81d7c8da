<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Standin\World\CertificateMaker;
use Tests\Support\PythonFtpServer;
use Tests\Support\RemoteDirectoryContract;
use Tests\Support\Scratch;
use Tests\Support\StandinHost;

/** Our side against a server nobody here wrote. */
final class PythonTlsTest extends RemoteDirectoryContract
{
    use Scratch {
        tearDown as private sweep;
    }

    private ?PythonFtpServer $server = null;

    protected function remote(): RemoteDirectory
    {
        $own = $this->directory();
        (new CertificateMaker($own))->make([StandinHost::HOST]);
        $this->server = new PythonFtpServer($this->directory(), "$own/server.pem", "$own/ca.pem");

        return new FtpRemoteDirectory($this->server->endpoint());
    }

    protected function tearDown(): void
    {
        $this->server?->stop();
        $this->sweep();
    }
}
