<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** A file read into one of ours; one that is not as long as it was listed is a failure. */
final readonly class FetchFile extends Job
{
    private const MARGIN = KeepFile::MARGIN;

    /** @param  string  $local  our file, to be written anew */
    public function __construct(RemotePath $file, public string $local, int $size, string $subject)
    {
        parent::__construct($file, $subject, $size);
    }

    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        $sink = @fopen($this->local, 'wb');
        if ($sink === false) {
            throw RemoteFailure::while("fetching $this->path", FailureReason::LocalFile);
        }
        try {
            $bytes = $remote->read($this->path, $sink, $this->size + self::MARGIN);
            if (! fflush($sink)) {
                throw RemoteFailure::while("fetching $this->path", FailureReason::LocalFile);
            }
        } finally {
            fclose($sink);
        }
        clearstatcache(true, $this->local);
        if ($bytes !== $this->size || filesize($this->local) !== $this->size) {
            throw KeepFile::incomplete($this, $bytes);
        }

        return new JobResult($bytes);
    }

    public function toFields(): array
    {
        return ['local' => $this->local];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(self::path($fields), $fields->text('local'), $fields->number('size'), $fields->text('subject'));
    }
}
