<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Runs\OpenAddresses;
use App\Watch\Sweep;

final class SweepCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:sweep {--json : one JSON object on standard output}';

    protected $description = 'Put the accounts that are due in line to be looked at, a few at a time and one at a '
        .'time for each host';

    public function handle(Sweep $sweep): int
    {
        OpenAddresses::order();
        $count = $sweep->start();
        $this->wantsJson() ? $this->json(['queued' => $count]) : $this->line("$count accounts are put in line.");

        return self::PROVEN;
    }
}
