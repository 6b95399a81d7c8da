<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
use Tests\Support\DaemonContract;
use Tests\Support\FtpDaemon;
use Tests\Support\Vsftpd;

/** LIST only, without encryption. */
final class VsftpdPlainTest extends DaemonContract
{
    protected bool $listsExactTimes = false;

    protected function start(string $directory): FtpDaemon
    {
        return new Vsftpd($directory, Protocol::Ftp, '');
    }
}
