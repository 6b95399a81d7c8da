<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;

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

    /**
     * Does what can be done: a file that cannot does not keep the others from it.
     *
     * @param  iterable<Job>  $jobs
     * @param  (\Closure(Job, JobResult): void)|null  $done
     * @return list<TransferFailed> what could not be done, for reasons that lie in single files
     *
     * @throws TransferFailed where the reason lies in the server or the way there, or where too many fail
     */
    public function runAll(iterable $jobs, ?\Closure $done = null): array;

    /** How many connections the host was found to take, where it refused some; null where it took all. */
    public function taken(): ?int;

    /** Closes all connections. */
    public function close(): void;
}
