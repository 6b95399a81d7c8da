<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
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
}
