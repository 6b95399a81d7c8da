<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\RemoteDirectory;
use Tests\Support\PythonFtpServer;
use Tests\Support\RemoteDirectoryContract;
use Tests\Support\Scratch;

/** Data connections that the server opens, with one that knows no passive mode. */
final class PythonActiveTest extends RemoteDirectoryContract
{
    use Scratch {
        tearDown as private sweep;
    }

    private ?PythonFtpServer $server = null;

    protected function remote(): RemoteDirectory
    {
        $this->server = new PythonFtpServer($this->directory(), '', null, 100, 'PASV EPSV');
        $passive = $this->server->endpoint();

        return new FtpRemoteDirectory(
            new Endpoint(
                $passive->host,
                $passive->port,
                $passive->protocol,
                $passive->login,
                $passive->password,
                $passive->address,
                active: true,
            ),
        );
    }

    protected function tearDown(): void
    {
        $this->server?->stop();
        $this->sweep();
    }
}
