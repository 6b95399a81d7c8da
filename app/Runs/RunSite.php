<?php

declare(strict_types=1);

namespace App\Runs;

use App\Accounts\SitePhp;
use App\Backups\DatabaseDumps;
use App\Hosting\Connections;
use App\Models\Deployment;
use App\Plans\SiteFacts;
use App\Storage\RunIds;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\SiteAtHost;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\HostJobs;

/** The site of one deployment, over its host's control service and as visitors reach it. */
final readonly class RunSite implements SiteAtHost
{
    public function __construct(
        private Connections $connections,
        private SiteFacts $facts,
        private SitePhp $php,
        private DatabaseDumps $dumps,
        private Deployment $deployment,
    ) {
    }

    public function jobs(): ?HostJobs
    {
        $host = $this->connections->jobs($this->deployment->site->account);

        return $host === null ? null : new HostJobs($host, $this->deployment->runPlace()->root);
    }

    public function room(): ?int
    {
        try {
            return $this->connections->control($this->deployment->site->account)?->space()->left();
        } catch (ControlFailure $failure) {
            logger()->warning($failure->getMessage());

            return null; // Not known; a full account then answers for itself, and all is put back.
        }
    }

    /** What the host does not say, the proof will show. */
    public function lacks(): ?string
    {
        $needs = $this->facts->needs($this->deployment);
        if (! $needs->areOfPhp()) {
            return null;
        }
        $site = $this->deployment->site;
        try {
            $answer = $this->php->ask($site, $this->deployment->runPlace()->served);
        } catch (RemoteFailure $failure) {
            logger()->warning("Which PHP $site->domain runs is not known: {$failure->getMessage()}");

            return null; // Where nothing can be put, the run itself says so.
        }

        return $answer->trouble === null ? $needs->lacking($answer->version, $answer->extensions) : null;
    }

    /** What is changed by hand leaves databases alone. */
    public function takeDatabases(): ?array
    {
        if ($this->deployment->kind->isByHand()) {
            return null;
        }
        $taken = $this->dumps->take(
            $this->deployment->site,
            $this->deployment->runPlace()->root,
            RunIds::forDeployment($this->deployment->id),
        );
        $this->deployment->backup()->first()?->update($taken);

        return $taken;
    }
}
