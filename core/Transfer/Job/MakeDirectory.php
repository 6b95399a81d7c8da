<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\ContentStore;

/** A directory made. */
final readonly class MakeDirectory extends Job
{
    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        $remote->makeDirectory($this->path);

        return new JobResult;
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(self::path($fields), $fields->text('subject'));
    }
}
