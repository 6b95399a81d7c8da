<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Package\Fit\ClientSites;

/** Hosts of clients as they are given. */
final readonly class FixedClients implements ClientSites
{
    /**
     * @param  array<string, int>  $clients  by host
     * @param  array<string, list<int>>  $running  clients by the name of a package
     */
    public function __construct(private array $clients, private array $running = [])
    {
    }

    public function clientsOf(array $hosts): array
    {
        return array_intersect_key($this->clients, array_flip($hosts));
    }

    public function clientsRunning(string $package): array
    {
        return $this->running[$package] ?? [];
    }
}
