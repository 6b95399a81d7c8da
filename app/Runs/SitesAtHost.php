<?php

declare(strict_types=1);

namespace App\Runs;

use App\Accounts\SitePhp;
use App\Backups\DatabaseDumps;
use App\Hosting\Connections;
use App\Models\Deployment;
use App\Plans\SiteFacts;

/** Gives each run its site as the host has it. */
final readonly class SitesAtHost
{
    public function __construct(
        private Connections $connections,
        private SiteFacts $facts,
        private SitePhp $php,
        private DatabaseDumps $dumps,
    ) {
    }

    public function of(Deployment $deployment): RunSite
    {
        return new RunSite($this->connections, $this->facts, $this->php, $this->dumps, $deployment);
    }
}
