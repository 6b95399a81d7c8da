<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Tests\Support\PythonContract;
use Tests\Support\PythonFtpServer;

final class PythonListTest extends PythonContract
{
    protected bool $listsExactTimes = false;

    protected function start(string $home, string $certificate, string $authorities): PythonFtpServer
    {
        return new PythonFtpServer($home, '', $authorities, 100, 'MLSD MLST EPSV', '10.11.12.13');
    }
}
