<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
use Tests\Support\DaemonContract;
use Tests\Support\FtpDaemon;
use Tests\Support\Proftpd;

/** TLS 1.3 only, and sessions need not be resumed. */
final class ProftpdNewestLaxTest extends DaemonContract
{
    protected function start(string $directory): FtpDaemon
    {
        return new Proftpd($directory, Protocol::FtpsExplicit, '1.3', false);
    }
}
