<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RelativePath;

/** A file or directory in a manifest. */
final readonly class ManifestEntry
{
    /**
     * @param  int  $size  bytes, 0 for directories
     * @param  int|null  $modified  seconds since 1970, UTC
     * @param  int|null  $mode  twelve bits
     * @param  string|null  $sha256  of the contents in hexadecimal, null where not known
     * @param  int|null  $readAt  when the bytes were last read from the server, seconds since 1970; null where the
     *     hash is
     *                            not from reading, but from what was sent
     */
    public function __construct(
        public RelativePath $path,
        public EntryKind $kind,
        public int $size = 0,
        public ?int $modified = null,
        public ?int $mode = null,
        public ?string $sha256 = null,
        public ?int $readAt = null,
    ) {
    }

    public function isFile(): bool
    {
        return $this->kind === EntryKind::File;
    }

    /** @param  int|null  $readAt  when the bytes were read from the server */
    public function withSha256(?string $sha256, ?int $readAt = null): self
    {
        return new self($this->path, $this->kind, $this->size, $this->modified, $this->mode, $sha256, $readAt);
    }

    /** The same with the bytes that came while it was written to, at no time that anybody could tell. */
    public function grownTo(int $size): self
    {
        return new self($this->path, $this->kind, $size, null, $this->mode);
    }

    /** @param  int|null  $mode  twelve bits */
    public function withMode(?int $mode): self
    {
        return new self($this->path, $this->kind, $this->size, $this->modified, $mode, $this->sha256, $this->readAt);
    }

    /** Whether the mode is one that servers give to whatever is new, or is not known. */
    public function hasUsualMode(): bool
    {
        return $this->mode === null || $this->mode === ($this->isFile() ? 0644 : 0755);
    }

    public function at(RelativePath $path): self
    {
        return new self($path, $this->kind, $this->size, $this->modified, $this->mode, $this->sha256, $this->readAt);
    }

    /** The same, whenever it was written. */
    public function withoutTime(): self
    {
        return new self($this->path, $this->kind, $this->size, null, $this->mode, $this->sha256);
    }

    /**
     * Whether the contents differ, as far as that is known.
     *
     * @return bool|null null where neither hashes nor size and time tell
     */
    public function differsFrom(self $other): ?bool
    {
        return match (true) {
            $this->kind !== $other->kind || $this->size !== $other->size => true,
            $this->sha256 !== null && $other->sha256 !== null => $this->sha256 !== $other->sha256,
            $this->modified !== null && $this->modified === $other->modified => false,
            default => null,
        };
    }

    /** Whether a listing shows nothing that tells the two apart: kind, size and time. */
    public function looksLike(self $other): bool
    {
        return $this->kind === $other->kind && $this->size === $other->size && $this->modified === $other->modified;
    }

    /**
     * @return array{
     *     path: string,
     *     kind: string,
     *     size: int,
     *     modified: int|null,
     *     mode: int|null,
     *     sha256: string|null,
     *     read_at: int|null,
     * }
     */
    public function toArray(): array
    {
        return [
            'path' => $this->path->toString(),
            'kind' => $this->kind->value,
            'size' => $this->size,
            'modified' => $this->modified,
            'mode' => $this->mode,
            'sha256' => $this->sha256,
            'read_at' => $this->readAt,
        ];
    }

    /** @return array{string, int, int|null, int|null, string|null, int|null} the same without the path, in its order */
    public function toList(): array
    {
        return [
            $this->kind->value,
            $this->size,
            $this->modified,
            $this->mode,
            $this->sha256,
            $this->readAt,
        ];
    }

    /** @param  JsonFields  $list  as toList() gives it */
    public static function fromList(RelativePath $path, JsonFields $list): self
    {
        return new self(
            $path,
            EntryKind::from($list->text('0')),
            $list->number('1'),
            $list->numberOrNull('2'),
            $list->numberOrNull('3'),
            $list->textOrNull('4'),
            $list->numberOrNull('5'),
        );
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            RelativePath::fromString($fields->text('path')),
            EntryKind::from($fields->text('kind')),
            $fields->number('size'),
            $fields->numberOrNull('modified'),
            $fields->numberOrNull('mode'),
            $fields->textOrNull('sha256'),
            $fields->numberOrNull('read_at'),
        );
    }
}
