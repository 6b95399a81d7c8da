<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** A file read into the store; its hash is the answer. */
final readonly class KeepFile extends Job
{
    /** A file that holds more than it was listed with, by this in bytes, is read no further: it may have no end. */
    public const MARGIN = 65_536;

    /** The same of one that is read again because it changes, beside twice its size. */
    private const GROWS_BY = 16_000_000;

    /** @param  bool  $mayGrow  whether more bytes than were listed are taken as well, of a file that is written to */
    public function __construct(RemotePath $file, int $size, string $subject, public bool $mayGrow = false)
    {
        parent::__construct($file, $subject, $size);
    }

    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        $incoming = self::needed($store)->incoming();
        $most = $this->mayGrow ? 2 * $this->size + self::GROWS_BY : $this->size + self::MARGIN;
        $bytes = $remote->read($this->path, $incoming->sink(), $most);
        // Nothing is kept of what is not whole.
        $isWhole = $bytes === $this->size || ($this->mayGrow && $bytes > $this->size);
        $content = $isWhole ? $incoming->keep() : throw self::incomplete($this, $bytes);

        return $content->size === $bytes
            ? new JobResult($bytes, sha256: $content->sha256)
            : throw self::incomplete($this, $content->size);
    }

    public function toFields(): array
    {
        return ['may_grow' => $this->mayGrow];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            self::path($fields),
            $fields->number('size'),
            $fields->text('subject'),
            $fields->flag('may_grow'),
        );
    }

    public static function incomplete(Job $job, int $bytes): RemoteFailure
    {
        return RemoteFailure::while(
            "fetching $job->path",
            FailureReason::Incomplete,
            "listed with $job->size bytes, $bytes came",
        );
    }
}
