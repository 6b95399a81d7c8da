<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Watch\Upkeep;
use Illuminate\Console\Command;

final class CloseDueCommand extends Command
{
    protected $signature = 'cellarium:close-due';

    protected $description = 'Close FTP users whose time has come, and find out what became of changes that were '
        .'broken off';

    public function handle(Upkeep $upkeep): int
    {
        $upkeep->order();

        return self::SUCCESS;
    }
}
