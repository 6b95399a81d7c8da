<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Transfer\Job\Job;
use RuntimeException;

/** A job could not be done, after as many tries as its reason allows. */
final class TransferFailed extends RuntimeException
{
    public function __construct(
        public readonly Job $job,
        public readonly RemoteFailure $failure,
    ) {
        parent::__construct($failure->getMessage(), 0, $failure);
    }
}
