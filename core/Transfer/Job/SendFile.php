<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** One of our files sent. */
final readonly class SendFile extends FileUpload
{
    public function __construct(
        public string $local,
        RemotePath $file,
        int $size,
        string $subject,
        bool $isListedLater = false,
    ) {
        parent::__construct($file, $size, $subject, $isListedLater);
    }

    protected function source(?ContentStore $store)
    {
        $source = @fopen($this->local, 'rb');

        return $source === false
            ? throw RemoteFailure::while("sending $this->subject", FailureReason::LocalFile)
            : $source;
    }

    protected function sha256(): string
    {
        return (string) hash_file('sha256', $this->local);
    }

    public function toFields(): array
    {
        return parent::toFields() + ['local' => $this->local];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('local'),
            self::path($fields),
            $fields->number('size'),
            $fields->text('subject'),
            $fields->flag('is_listed_later'),
        );
    }
}
