<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** One thing for one connection to do; small enough to be handed to another process. */
abstract readonly class Job
{
    /**
     * @param  string  $subject  the path people know it by, below the document root
     * @param  int  $size  bytes to send, or expected to come
     */
    public function __construct(public RemotePath $path, public string $subject = '', public int $size = 0)
    {
    }

    /**
     * Returns when the server has confirmed it.
     *
     * @param  ContentStore|null  $store  for jobs that keep, send or compare contents
     *
     * @throws RemoteFailure
     * @throws \Cellarium\Core\Storage\StoreFailure
     */
    abstract public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult;

    /** @return array<string, string|int|bool|list<string>|null> for another process, beside path, subject, size */
    public function toFields(): array
    {
        return [];
    }

    /** @param  JsonFields  $fields  what toFields() gave, and the path, subject and size */
    abstract public static function fromFields(JsonFields $fields): self;

    protected static function path(JsonFields $fields, string $key = 'path'): RemotePath
    {
        return RemotePath::fromString($fields->text($key));
    }

    protected static function needed(?ContentStore $store): ContentStore
    {
        return $store ?? throw new \LogicException('a job for the store, which is not there');
    }
}
