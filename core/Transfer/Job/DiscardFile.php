<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\ContentStore;

/** A file removed that may be gone already. */
final readonly class DiscardFile extends Job
{
    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        try {
            $remote->remove($this->path);
        } catch (RemoteFailure $failure) {
            if ($failure->reason !== FailureReason::NotFound) {
                throw $failure;
            }
        }

        return new JobResult;
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(self::path($fields), $fields->text('subject'));
    }
}
