<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
use Tests\Support\StandinContract;

final class StandinPlainTest extends StandinContract
{
    protected function protocol(): Protocol
    {
        return Protocol::Ftp;
    }
}
