<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Fit;

/** Whose sites are whose, among all that are looked after here. */
interface ClientSites
{
    /**
     * @param  list<string>  $hosts  lower case
     * @return array<string, int> the client whose site a host leads to, by host; others are left out
     */
    public function clientsOf(array $hosts): array;

    /** @return list<int> clients on whose sites a version of this package is live */
    public function clientsRunning(string $package): array;
}
