<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Hosting\HostJobs;

/** The site of a run as its host has it, asked beside the connections that files go over. */
interface SiteAtHost
{
    /** What the host does by itself; null where it has no control service. */
    public function jobs(): ?HostJobs;

    /** @return int|null bytes left in the account; null where the host does not say */
    public function room(): ?int;

    /**
     * Asked once, before anything else.
     *
     * @return string|null what the site lacks for what is sent, in words; null where it lacks nothing that is known
     */
    public function lacks(): ?string;

    /**
     * Takes what else is part of the way back than files; called once, before anything is touched.
     *
     * @return array<string, mixed>|null kept in the journal as "beside"; null where there is nothing of the kind
     */
    public function takeDatabases(): ?array;
}
