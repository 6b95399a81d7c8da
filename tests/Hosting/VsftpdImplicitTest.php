<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
use Tests\Support\DaemonContract;
use Tests\Support\FtpDaemon;
use Tests\Support\Vsftpd;

/** TLS from the first byte on, and each data connection has to resume the session. */
final class VsftpdImplicitTest extends DaemonContract
{
    protected bool $listsExactTimes = false;

    protected function start(string $directory): FtpDaemon
    {
        return new Vsftpd($directory, Protocol::FtpsImplicit);
    }
}
