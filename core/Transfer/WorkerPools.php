<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\HostSlots;
use Cellarium\Core\Storage\StoreSettings;

/** Pools of worker processes, each with one connection. */
final readonly class WorkerPools implements TransferPools
{
    /**
     * @param  StoreSettings  $store  for jobs that keep, send or compare contents; whoever uses a pool flushes it
     * @param  HostSlots  $slots  what all processes together may have to the host
     * @param  int|null  $bytesASecond  that each connection may move; null for as many as it can
     */
    public function __construct(
        private StoreSettings $store,
        private HostSlots $slots,
        private ?int $bytesASecond,
    ) {
    }

    public function open(
        Endpoint $endpoint,
        int $connections,
        TransferListener $listener,
        array $inherit = [],
    ): WorkerPool {
        return new WorkerPool(
            $endpoint,
            $connections,
            $listener,
            $inherit,
            $this->slots,
            $this->bytesASecond,
            $this->store,
        );
    }
}
