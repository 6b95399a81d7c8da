<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** Contents of the store sent. */
final readonly class SendContent extends FileUpload
{
    /** @param  string  $content  SHA-256 of contents of the store */
    public function __construct(
        public string $content,
        RemotePath $file,
        int $size,
        string $subject,
        bool $isListedLater = false,
    ) {
        parent::__construct($file, $size, $subject, $isListedLater);
    }

    protected function source(?ContentStore $store)
    {
        return self::needed($store)->read($this->content);
    }

    protected function sha256(): string
    {
        return $this->content;
    }

    protected function content(): string
    {
        return $this->content;
    }

    public function toFields(): array
    {
        return parent::toFields() + ['content' => $this->content];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('content'),
            self::path($fields),
            $fields->number('size'),
            $fields->text('subject'),
            $fields->flag('is_listed_later'),
        );
    }
}
