<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

/** A database that a host keeps for one of the sites of an account. */
final readonly class HostDatabase
{
    /** @param  string  $site  its domain */
    public function __construct(public string $name, public string $site)
    {
    }
}
