<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
use Tests\Support\DaemonContract;
use Tests\Support\FtpDaemon;
use Tests\Support\Proftpd;

/** TLS 1.3 only and sessions have to be resumed: each transfer gets a sign-in of its own. */
final class ProftpdNewestTest extends DaemonContract
{
    protected function start(string $directory): FtpDaemon
    {
        return new Proftpd($directory, Protocol::FtpsExplicit, '1.3');
    }
}
