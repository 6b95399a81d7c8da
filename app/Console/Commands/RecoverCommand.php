<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Backups\ClockWatch;
use App\Storage\Spool;
use App\Watch\Recovery;
use Illuminate\Console\Command;

final class RecoverCommand extends Command
{
    protected $signature = 'cellarium:recover {--starting : no worker runs yet}';

    protected $description = 'Take up runs that were broken off, and let go of files that were fetched to be looked at';

    public function handle(Recovery $recovery, Spool $spool): int
    {
        ClockWatch::look();
        $spool->sweep();
        $taken = $recovery->takeUp($this->option('starting') === true);
        if ($taken > 0) {
            $this->components->info("$taken broken-off runs are taken up again.");
        }

        return self::SUCCESS;
    }
}
