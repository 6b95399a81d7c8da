<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

/** Connections to one login that share work. */
interface TransferPool
{
    /**
     * Does all jobs, in no particular order; returns when every one is confirmed.
     *
     * @param  iterable<Job>  $jobs  taken as connections fall free
     * @param  (\Closure(Job, JobResult): void)|null  $done  called for each job as it is confirmed
     *
     * @throws TransferFailed at the first job that cannot be done; jobs in hand are finished or broken off before
     */
    public function run(iterable $jobs, ?\Closure $done = null): void;

    /** Closes all connections. */
    public function close(): void;
}
