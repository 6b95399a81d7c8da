<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Tests\Support\PythonContract;
use Tests\Support\PythonFtpServer;

final class PythonTlsTest extends PythonContract
{
    protected function start(string $home, string $certificate, string $authorities): PythonFtpServer
    {
        return new PythonFtpServer($home, $certificate, $authorities);
    }
}
