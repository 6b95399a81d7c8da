<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/**
 * A remote directory that takes one of its host's slots when it is first used, and gives it back when it is closed or
 * fails.
 */
final class PooledRemoteDirectory implements LooksAgain, RemoteDirectory, SetsModes
{
    private const SURELY_ALIVE_SECONDS = 2.0;

    private (RemoteDirectory&SetsModes)

|null $inner = null;

    /** @var resource|null */
    private $slot;

    private float $used = 0.0;

    /** @param  \Closure(): (RemoteDirectory&SetsModes)  $open */
    public function __construct(
        public readonly string $host,
        private readonly \Closure $open,
        private readonly HostSlots $slots,
        private readonly float $patience,
    ) {
    }

    public function list(RemotePath $directory): array
    {
        return $this->on(static fn (RemoteDirectory $inner): array => $inner->list($directory), true);
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        return $this->on(static fn (RemoteDirectory $inner): ?RemoteEntry => $inner->stat($path), true);
    }

    /** Over a new connection in any case; where the protocol has no other command, by asking for each name. */
    public function namesOtherwise(RemotePath $directory, array $names): array
    {
        $this->close();

        return $this->on(static fn (RemoteDirectory $inner): array => $inner instanceof LooksAgain
            ? $inner->namesOtherwise($directory, $names)
            : NamesOneByOne::ask($inner, $directory, $names));
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        return $this->on(static fn (RemoteDirectory $inner): int => $inner->read($file, $sink, $most));
    }

    public function size(RemotePath $file): ?int
    {
        return $this->on(static fn (RemoteDirectory $inner): ?int => $inner->size($file), true);
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $this->on(static fn (RemoteDirectory $inner) => $inner->write($file, $source, $size));
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->on(static fn (RemoteDirectory $inner) => $inner->rename($from, $to));
    }

    public function remove(RemotePath $file): void
    {
        $this->on(static fn (RemoteDirectory $inner) => $inner->remove($file));
    }

    public function makeDirectory(RemotePath $directory): void
    {
        $this->on(static fn (RemoteDirectory $inner) => $inner->makeDirectory($directory));
    }

    public function removeDirectory(RemotePath $directory): void
    {
        $this->on(static fn (RemoteDirectory $inner) => $inner->removeDirectory($directory));
    }

    public function setMode(RemotePath $path, int $mode): void
    {
        $this->on(static fn (SetsModes $inner) => $inner->setMode($path, $mode));
    }

    /** Seconds since it was used. */
    public function idle(): float
    {
        return hrtime(true) / 1e9 - $this->used;
    }

    public function close(): void
    {
        $this->inner = null;
        if (is_resource($this->slot)) {
            fclose($this->slot);
        }
        $this->slot = null;
    }

    public function __destruct()
    {
        $this->close();
    }

    /**
     * @template T
     *
     * @param  \Closure(RemoteDirectory&SetsModes): T  $work
     * @param  bool  $repeatable  tried once more where a connection that was idle turns out to be gone
     * @return T
     */
    private function on(\Closure $work, bool $repeatable = false): mixed
    {
        $wasIdle = $this->inner !== null && $this->idle() > self::SURELY_ALIVE_SECONDS;
        $this->slot ??= $this->slots->take($this->host, $this->patience) ?? throw RemoteFailure::while(
            "connecting to $this->host",
            FailureReason::TooManyConnections,
            'all connections that this host is allowed are in use here',
        );
        $this->inner ??= ($this->open)();
        try {
            return $work($this->inner);
        } catch (RemoteFailure $failure) {
            if ($failure->reason->isTransient() || $failure->reason === FailureReason::SignInRefused) {
                $this->close();
                if ($repeatable && $wasIdle && $failure->reason === FailureReason::Disconnected) {
                    return $this->on($work);
                }
            }
            throw $failure;
        } finally {
            $this->used = hrtime(true) / 1e9;
        }
    }
}
