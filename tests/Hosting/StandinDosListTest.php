<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Connection\Protocol;
use Tests\Support\StandinContract;

final class StandinDosListTest extends StandinContract
{
    protected bool $listsExactTimes = false;

    protected bool $listsModes = false;

    protected function protocol(): Protocol
    {
        return Protocol::FtpsExplicit;
    }

    protected function manners(): array
    {
        return ['listing' => 'dos'];
    }
}
