<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\Endpoint;

/** The source of pools: those of worker processes, or what stands in for them. */
interface TransferPools
{
    /**
     * @param  int  $connections  at the most
     * @param  list<resource>  $inherit  streams of a lock, which is held as long as a connection is open
     */
    public function open(
        Endpoint $endpoint,
        int $connections,
        TransferListener $listener,
        array $inherit = [],
    ): TransferPool;
}
