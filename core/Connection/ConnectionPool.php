<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** The connections of one process: asked for again, an account's is still open; idle ones are closed. */
final class ConnectionPool
{
    /** @var array<string, PooledRemoteDirectory> by who signs in where */
    private array $open = [];

    /** @var array<string, resource> places of those that nobody uses just now */
    private array $resting = [];

    /**
     * @param  HostSlots|null  $rests  how many may stay open unused, to one host over all processes: what idle ones
     *     keep, those at work lack; null for as many as there are slots
     */
    public function __construct(
        private readonly HostSlots $slots,
        private readonly ?HostSlots $rests = null,
        private readonly ConnectionSettings $settings = new ConnectionSettings,
        private readonly float $idleSeconds = 30.0,
        private readonly float $patience = 30.0,
    ) {
    }

    public function directory(Endpoint $endpoint): PooledRemoteDirectory
    {
        // Another password or key is another sign-in: a connection made with the old one proves nothing about it.
        $key = hash('sha256', serialize($endpoint->reveal()));

        if (isset($this->resting[$key])) {
            fclose($this->resting[$key]);
            unset($this->resting[$key]);
        }

        return $this->open[$key] ??= new PooledRemoteDirectory(
            $endpoint->host,
            fn (): RemoteDirectory&SetsModes => RemoteDirectories::open($endpoint, $this->settings),
            $this->slots,
            $this->patience,
        );
    }

    /** Nothing is asked for a while: of what is open, only so many stay so as may rest at their host. */
    public function rest(): void
    {
        if ($this->rests === null) {
            return;
        }
        foreach ($this->open as $key => $directory) {
            $place = $this->resting[$key] ?? $this->rests->take($directory->host, 0.0);
            if ($place === null) {
                $this->end($key);
            } else {
                $this->resting[$key] = $place;
            }
        }
    }

    /** Closes what was not used for a while; to be called now and then by processes that live long. */
    public function tend(): void
    {
        foreach ($this->open as $key => $directory) {
            $directory->idle() < $this->idleSeconds || $this->end($key);
        }
    }

    private function end(string $key): void
    {
        $this->open[$key]->close();
        isset($this->resting[$key]) && fclose($this->resting[$key]);
        unset($this->open[$key], $this->resting[$key]);
    }

    public function close(): void
    {
        array_map($this->end(...), array_keys($this->open));
    }
}
