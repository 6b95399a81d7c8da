<?php

declare(strict_types=1);

namespace App\Work;

use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Work\FairShare;
use Illuminate\Database\DatabaseManager;
use Illuminate\Queue\Connectors\ConnectorInterface;

final readonly class FairQueueConnector implements ConnectorInterface
{
    public function __construct(private DatabaseManager $connections, private Locks $locks)
    {
    }

    /** @param  array{connection: string|null, table: string, queue: string, workers: int}  $config */
    public function connect(array $config): FairQueue
    {
        $number = (int) getenv('CELLARIUM_WORKER');

        return new FairQueue(
            $this->connections->connection($config['connection']),
            $config['table'],
            $config['queue'],
            // Beside those for everything there is one that closes FTP users alone.
            new FairShare(max(1, $config['workers']) + 1),
            $this->locks,
            Wakes::here(),
            $number > 0 ? $number : null,
        );
    }
}
