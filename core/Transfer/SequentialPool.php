<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\Job\Job;

/** One connection in this process, one job after the other. */
final readonly class SequentialPool implements TransferPool
{
    private JobRunner $runner;

    public function __construct(
        RemoteDirectory $remote,
        ?ContentStore $store = null,
        private ?TransferListener $listener = null,
    ) {
        $this->runner = new JobRunner($remote, $store);
    }

    public function run(iterable $jobs, ?\Closure $done = null): void
    {
        foreach ($jobs as $job) {
            $this->do($job, $done);
        }
    }

    public function runAll(iterable $jobs, ?\Closure $done = null): array
    {
        $failures = new FileFailures;
        foreach ($jobs as $job) {
            try {
                $this->do($job, $done);
            } catch (TransferFailed $failure) {
                $failures->add($failure);
            }
        }

        return $failures->all;
    }

    /** @throws TransferFailed */
    private function do(Job $job, ?\Closure $done): void
    {
        $this->listener?->connection(0, $job, 0);
        try {
            $result = $this->runner->run($job);
        } catch (RemoteFailure $failure) {
            throw new TransferFailed($job, $failure);
        } finally {
            $this->listener?->connection(0, null, 0);
        }
        $this->listener?->beat();
        if ($done !== null) {
            $done($job, $result);
        }
    }

    public function taken(): null
    {
        return null;
    }

    public function close(): void
    {
    }
}
