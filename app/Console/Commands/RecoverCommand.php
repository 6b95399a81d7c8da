<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Watch\Recovery;
use Illuminate\Console\Command;

final class RecoverCommand extends Command
{
    protected $signature = 'cellarium:recover {--starting : no worker runs yet}';

    protected $description = 'Take up runs that were broken off';

    public function handle(Recovery $recovery): int
    {
        $taken = $recovery->takeUp($this->option('starting') === true);
        if ($taken > 0) {
            $this->components->info("$taken broken-off runs are taken up again.");
        }

        return self::SUCCESS;
    }
}
