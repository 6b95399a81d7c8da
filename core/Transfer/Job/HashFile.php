<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\ComputesHashes;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** The hash of a file that is read; one that is not given, or not whole, is an answer and no failure. */
final readonly class HashFile extends Job
{
    /**
     * @param  string|null  $content  SHA-256 of contents of the store that it should be the same as, where what the
     *     server computes over its own is believed; their hash is the answer then
     */
    public function __construct(RemotePath $file, int $size, string $subject, public ?string $content = null)
    {
        parent::__construct($file, $subject, $size);
    }

    /** A connection that breaks is a failure and tried again; what the server has, or has not, is the answer. */
    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        $due = $this->content;
        $computed = $due !== null && $remote instanceof ComputesHashes ? $remote->hash($this->path) : null;
        if ($computed !== null && $computed->isOf((string) $due, fn () => self::needed($store)->read((string) $due))) {
            return new JobResult(sha256: $due);
        }
        // One that differs is read all the same: a server may still tell the hash of what lay there before.
        $sink = tmpfile();
        if ($sink === false) {
            throw RemoteFailure::while("reading $this->path back", FailureReason::LocalFile);
        }
        try {
            $bytes = $remote->read($this->path, $sink, $this->size + KeepFile::MARGIN);
            $whole = $bytes === $this->size && fflush($sink) && rewind($sink);
            $hash = hash_init('sha256');
            $whole && hash_update_stream($hash, $sink);

            return new JobResult($bytes, sha256: $whole ? hash_final($hash) : null);
        } catch (RemoteFailure $failure) {
            $answered = [FailureReason::NotFound, FailureReason::Forbidden, FailureReason::Incomplete];

            return in_array($failure->reason, $answered, true) ? new JobResult : throw $failure;
        } finally {
            fclose($sink);
        }
    }

    public function toFields(): array
    {
        return ['content' => $this->content];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            self::path($fields),
            $fields->number('size'),
            $fields->text('subject'),
            $fields->textOrNull('content'),
        );
    }
}
