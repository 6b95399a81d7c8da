<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** Another name for a file or a directory. */
final readonly class RenameFile extends Job
{
    /** @param  int|null  $mode  to set before, where the server can */
    public function __construct(RemotePath $from, public RemotePath $to, public ?int $mode, string $subject)
    {
        parent::__construct($from, $subject);
    }

    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        $isSet = $this->mode === null || SetMode::isSet($remote, $this->path, $this->mode);
        $remote->rename($this->path, $this->to);

        return new JobResult(modeRefused: ! $isSet);
    }

    public function toFields(): array
    {
        return ['to' => $this->to->toString(), 'mode' => $this->mode];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            self::path($fields),
            self::path($fields, 'to'),
            $fields->numberOrNull('mode'),
            $fields->text('subject'),
        );
    }
}
