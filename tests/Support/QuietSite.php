<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Deployment\SiteAtHost;
use Cellarium\Core\Hosting\HostJobs;

/** A host that says what it was given, and lacks nothing. */
final readonly class QuietSite implements SiteAtHost
{
    public function __construct(private ?HostJobs $jobs = null, private ?int $room = null)
    {
    }

    public function jobs(): ?HostJobs
    {
        return $this->jobs;
    }

    public function room(): ?int
    {
        return $this->room;
    }

    public function lacks(): null
    {
        return null;
    }

    public function takeDatabases(): null
    {
        return null;
    }
}
