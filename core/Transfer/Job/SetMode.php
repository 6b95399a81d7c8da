<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\SetsModes;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** The rights of a file or a directory set; a server that does not set them is an answer and no failure. */
final readonly class SetMode extends Job
{
    /** @param  int  $mode  twelve bits */
    public function __construct(RemotePath $path, public int $mode, string $subject)
    {
        parent::__construct($path, $subject);
    }

    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        return new JobResult(modeRefused: ! self::isSet($remote, $this->path, $this->mode));
    }

    /** Many servers refuse SITE CHMOD as such; what is sent is not lost for that. */
    public static function isSet(RemoteDirectory $remote, RemotePath $path, int $mode): bool
    {
        if (! $remote instanceof SetsModes) {
            return false;
        }
        try {
            $remote->setMode($path, $mode);
        } catch (RemoteFailure $failure) {
            $refused = [FailureReason::Forbidden, FailureReason::NotFound, FailureReason::NotUnderstood];
            if (! in_array($failure->reason, $refused, true)) {
                throw $failure;
            }

            return false;
        }

        return true;
    }

    public function toFields(): array
    {
        return ['mode' => $this->mode];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(self::path($fields), $fields->number('mode'), $fields->text('subject'));
    }
}
