<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\CopiesFiles;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** A file of the server copied there, or, where it does not copy, sent from the store. */
final readonly class CopyFile extends Job
{
    /** @param  SendContent  $instead  the same, for a server that does not copy; its path is the one to copy to */
    public function __construct(RemotePath $from, public SendContent $instead)
    {
        parent::__construct($from, $instead->subject, $instead->size);
    }

    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        if ($this->isCopied($remote)) {
            $held = $this->instead->isListedLater ? $this->size : FileUpload::held($remote, $this->instead->path);
            if ($held === $this->size) {
                return new JobResult($this->size);
            }
        }

        return $this->instead->carryOut($remote, $store);
    }

    /** A server that refuses to copy takes the file all the same. */
    private function isCopied(RemoteDirectory $remote): bool
    {
        try {
            return $remote instanceof CopiesFiles && $remote->copy($this->path, $this->instead->path);
        } catch (RemoteFailure $failure) {
            return $failure->reason->isTransient() ? throw $failure : false;
        }
    }

    public function toFields(): array
    {
        return $this->instead->toFields() + ['to' => $this->instead->path->toString()];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(self::path($fields), new SendContent(
            $fields->text('content'),
            self::path($fields, 'to'),
            $fields->number('size'),
            $fields->text('subject'),
            $fields->flag('is_listed_later'),
        ));
    }
}
