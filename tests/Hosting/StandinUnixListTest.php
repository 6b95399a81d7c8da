<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
use Tests\Support\StandinContract;

final class StandinUnixListTest extends StandinContract
{
    protected bool $listsExactTimes = false;

    protected function protocol(): Protocol
    {
        return Protocol::Ftp;
    }

    protected function manners(): array
    {
        return ['listing' => 'unix', 'passive_address' => '10.11.12.13'];
    }
}
