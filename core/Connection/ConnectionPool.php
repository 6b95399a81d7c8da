<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** The connections of one process: asked for again, an account's is still open; idle ones are closed. */
final class ConnectionPool
{
    /** @var array<string, PooledRemoteDirectory> by who signs in where */
    private array $open = [];

    public function __construct(
        private readonly HostSlots $slots,
        private readonly ConnectionSettings $settings = new ConnectionSettings,
        private readonly float $idleSeconds = 30.0,
        private readonly float $patience = 30.0,
    ) {
    }

    public function directory(Endpoint $endpoint): PooledRemoteDirectory
    {
        // Another password or key is another sign-in: a connection made with the old one proves nothing about it.
        $key = hash('sha256', serialize($endpoint->reveal()));

        return $this->open[$key] ??= new PooledRemoteDirectory(
            $endpoint->host,
            fn (): RemoteDirectory&SetsModes => RemoteDirectories::open($endpoint, $this->settings),
            $this->slots,
            $this->patience,
        );
    }

    /** Closes what was not used for a while; to be called now and then by processes that live long. */
    public function tend(): void
    {
        foreach ($this->open as $key => $directory) {
            if ($directory->idle() >= $this->idleSeconds) {
                $directory->close();
                unset($this->open[$key]);
            }
        }
    }

    public function close(): void
    {
        foreach ($this->open as $directory) {
            $directory->close();
        }
        $this->open = [];
    }
}
