<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\RemoteDirectories;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\TransferListener;
use Cellarium\Core\Transfer\TransferPool;
use Cellarium\Core\Transfer\TransferPools;

/** Pools of one connection in this process, for tests that are about something else than processes. */
final readonly class OwnProcessPools implements TransferPools
{
    public function __construct(private StoreSettings $store)
    {
    }

    public function open(
        Endpoint $endpoint,
        int $connections,
        TransferListener $listener,
        array $inherit = [],
    ): TransferPool {
        return new SequentialPool(RemoteDirectories::open($endpoint), $this->store->open(), $listener);
    }
}
