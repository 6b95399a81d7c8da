<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\ResumesSending;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** A file sent, from wherever it comes; its size there is compared, so that no caller can forget to. */
abstract readonly class FileUpload extends Job
{
    /** Smaller files are sent from the beginning, which takes no longer than asking how much is there. */
    private const RESUMED_FROM = 1_000_000;

    /**
     * @param  bool  $isListedLater  whether whoever gives the job compares the size by a listing, which costs less than
     *     asking for each of many files
     */
    public function __construct(RemotePath $file, int $size, string $subject, public bool $isListedLater = false)
    {
        parent::__construct($file, $subject, $size);
    }

    /** @return resource from the first byte on */
    abstract protected function source(?ContentStore $store);

    /** SHA-256 of what is sent. */
    abstract protected function sha256(): string;

    /** SHA-256 of what is sent, where the store has it too; what the server computes is believed then. */
    protected function content(): ?string
    {
        return null;
    }

    public function carryOut(RemoteDirectory $remote, ?ContentStore $store): JobResult
    {
        $source = $this->source($store);
        try {
            $moved = $this->resumed($remote, $source, $store);
            if ($moved !== null) {
                return new JobResult($moved);
            }
            $remote->write($this->path, $source, $this->size);
        } finally {
            fclose($source);
        }
        $held = $this->isListedLater ? $this->size : self::held($remote, $this->path);
        if ($held !== $this->size) {
            throw RemoteFailure::while(
                "sending $this->subject",
                FailureReason::Incomplete,
                "$this->size bytes were sent, it holds ".($held ?? 'none'),
            );
        }

        return new JobResult($this->size);
    }

    public function toFields(): array
    {
        return ['is_listed_later' => $this->isListedLater];
    }

    /** @return int|null bytes that the server has; null where it has none of that name */
    public static function held(RemoteDirectory $remote, RemotePath $file): ?int
    {
        return $remote->size($file) ?? $remote->stat($file)?->size;
    }

    /**
     * Goes on behind what an earlier try has left there, and proves that all of it is what is sent.
     *
     * @param  resource  $source  stands at the beginning afterwards where that did not do
     * @return int|null bytes that were sent; null where it is to be sent from the beginning
     */
    private function resumed(RemoteDirectory $remote, $source, ?ContentStore $store): ?int
    {
        if ($this->size < self::RESUMED_FROM || ! $remote instanceof ResumesSending) {
            return null;
        }
        $held = $remote->size($this->path) ?? 0;
        if ($held === 0 || $held > $this->size || fseek($source, $held) !== 0) {
            return null;
        }
        $isWhole = $held === $this->size || $remote->writeFrom($this->path, $source, $held, $this->size);
        $readBack = new HashFile($this->path, $this->size, $this->subject, $this->content());
        $sha256 = $isWhole ? $readBack->carryOut($remote, $store)->sha256 : null;
        rewind($source);

        return $sha256 !== null && $sha256 === $this->sha256() ? $this->size - $held : null;
    }
}
