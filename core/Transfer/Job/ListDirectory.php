<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\ContentStore;

/** The names in a directory, each with what the server says of it. */
final readonly class ListDirectory extends Job
{
    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        return new JobResult(0, $remote->list($this->path));
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(self::path($fields));
    }
}
