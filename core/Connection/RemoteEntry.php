<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;

/** One name in a listing. */
final readonly class RemoteEntry
{
    /**
     * @param  int|null  $size  bytes, for files
     * @param  int|null  $modified  seconds since 1970, UTC
     * @param  bool  $exact  whether the time is right to the second and in UTC, so that files can be told apart by it
     * @param  int|null  $mode  the lower twelve bits as the server gave them, 0644 say
     * @param  string  $name  see WireName for what is no text
     * @param  string|null  $target  where a link points, as the server writes it; null where it does not tell
     * @param  bool  $isNameable  whether the protocol can name it in a command: FTP has no way to send a line end
     */
    public function __construct(
        public string $name,
        public EntryKind $kind,
        public ?int $size = null,
        public ?int $modified = null,
        public ?int $mode = null,
        public bool $exact = true,
        public ?string $target = null,
        public bool $isNameable = true,
    ) {
    }

    public function named(string $name): self
    {
        return new self(
            $name,
            $this->kind,
            $this->size,
            $this->modified,
            $this->mode,
            $this->exact,
            $this->target,
            $this->isNameable,
        );
    }

    public function pointingAt(string $target): self
    {
        return new self(
            $this->name,
            $this->kind,
            $this->size,
            $this->modified,
            $this->mode,
            $this->exact,
            $target,
            $this->isNameable,
        );
    }

    public function notNameable(): self
    {
        return new self(
            $this->name,
            $this->kind,
            $this->size,
            $this->modified,
            $this->mode,
            $this->exact,
            $this->target,
            false,
        );
    }
}
