<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use Cellarium\Core\Json\JsonFields;

/** All that is needed to open the store, here or in another process of ours. */
final readonly class StoreSettings
{
    /**
     * @param  string  $directory  for contents, or, where they lie elsewhere, for what is on its way there
     * @param  bool  $isDurable  whether what is kept survives a loss of power from then on
     */
    public function __construct(
        public string $directory,
        public ContentKeys $keys,
        public ?S3Settings $s3 = null,
        public bool $isDurable = true,
        public bool $isBulk = false,
    ) {
    }

    /** The same for many contents, which are kept for good when flush() has returned and not one by one. */
    public function bulk(): self
    {
        return new self($this->directory, $this->keys, $this->s3, $this->isDurable, true);
    }

    /** A store that nobody can read any more once this is forgotten. */
    public static function scratch(string $directory): self
    {
        return new self($directory, ContentKeys::generate(), isDurable: false);
    }

    public function open(): SealedContentStore
    {
        return new SealedContentStore($this->objects(), $this->keys, $this->work());
    }

    public function objects(): StoredObjects
    {
        return $this->s3 === null
            ? new DiskObjects($this->directory, $this->isDurable, $this->isBulk)
            : S3Objects::connect($this->s3, $this->directory);
    }

    public function work(): WorkInProgress
    {
        return new WorkInProgress("$this->directory/at-work");
    }

    /** @return array<string, mixed> to be handed to a process of ours, and nowhere else */
    public function reveal(): array
    {
        return [
            'directory' => $this->directory,
            'keys' => $this->keys->reveal(),
            's3' => $this->s3?->reveal(),
            'is_durable' => $this->isDurable,
            'is_bulk' => $this->isBulk,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('directory'),
            ContentKeys::fromFields($fields->fields('keys')),
            $fields->has('s3') ? S3Settings::fromFields($fields->fields('s3')) : null,
            $fields->flag('is_durable'),
            $fields->flag('is_bulk'),
        );
    }
}
