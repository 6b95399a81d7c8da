<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\KeepFile;

/** Does jobs over one connection. */
final readonly class JobRunner
{
    /** @param  ContentStore|null  $store  for jobs that keep, send or compare contents */
    public function __construct(private RemoteDirectory $remote, private ?ContentStore $store = null)
    {
    }

    /** @throws RemoteFailure LocalFile for what the store could not do */
    public function run(Job $job): JobResult
    {
        try {
            return $job->carryOut($this->remote, $this->store);
        } catch (StoreFailure $failure) {
            $why = match ($failure->fault) {
                StoreFault::Missing, StoreFault::Damaged => ', whose stored copy is missing or damaged',
                StoreFault::KeyMissing => ', whose stored copy is sealed with a key that is not there',
                StoreFault::Unreachable => ', while the store did not answer',
                StoreFault::NotRead, StoreFault::NotWritten, StoreFault::NotOurs => '',
            };
            throw RemoteFailure::while(
                ($job instanceof KeepFile ? 'fetching ' : 'sending ').$job->path.$why,
                FailureReason::LocalFile,
            );
        }
    }
}
