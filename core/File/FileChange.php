<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\StoredContent;

/** One step of a change by hand, with what a person saw when they asked for it. */
final readonly class FileChange
{
    /**
     * @param  ManifestEntry|null  $seen  what lay there, path from the login's root; null where nothing must lie there.
     *     With its hash where its contents were seen
     * @param  RemotePath|null  $to  where nothing must lie yet
     * @param  string|null  $sha256  the contents to save, in the store
     * @param  int  $size  of these, in bytes
     * @param  int|null  $mode  twelve bits; null where it stays, or is what the server gives
     */
    private function __construct(
        public FileChangeKind $kind,
        public RemotePath $path,
        public ?ManifestEntry $seen = null,
        public ?RemotePath $to = null,
        public ?string $sha256 = null,
        public int $size = 0,
        public ?int $mode = null,
    ) {
    }

    /** @param  int|null  $mode  null where it stays */
    public static function save(
        RemotePath $path,
        ?ManifestEntry $seen,
        StoredContent $content,
        ?int $mode = null,
    ): self {
        return new self(
            FileChangeKind::Save,
            $path,
            $seen,
            sha256: $content->sha256,
            size: $content->size,
            mode: $mode,
        );
    }

    public static function makeDirectory(RemotePath $path, ?int $mode = null): self
    {
        return new self(FileChangeKind::MakeDirectory, $path, mode: $mode);
    }

    public static function removeDirectory(RemotePath $path, ManifestEntry $seen): self
    {
        return new self(FileChangeKind::RemoveDirectory, $path, $seen);
    }

    public static function rename(RemotePath $path, ManifestEntry $seen, RemotePath $to): self
    {
        return new self(FileChangeKind::Rename, $path, $seen, $to);
    }

    public static function copy(RemotePath $path, ManifestEntry $seen, RemotePath $to): self
    {
        return new self(FileChangeKind::Copy, $path, $seen, $to);
    }

    public static function setAside(RemotePath $path, ManifestEntry $seen): self
    {
        return new self(FileChangeKind::SetAside, $path, $seen);
    }

    public static function setMode(RemotePath $path, ManifestEntry $seen, int $mode): self
    {
        return new self(FileChangeKind::SetMode, $path, $seen, mode: $mode & 07777);
    }

    /**
     * What takes this step back.
     *
     * @param  ManifestEntry|null  $before  as it was, hash known where contents were touched
     * @param  ManifestEntry|null  $after  as it was left
     */
    public function undo(?ManifestEntry $before, ?ManifestEntry $after): ?self
    {
        return match ($this->kind) {
            FileChangeKind::Save => $before === null
                ? self::orNothing($after, fn (ManifestEntry $left): self => self::setAside($this->path, $left))
                : self::contentsOf($this->path, $before, $after),
            FileChangeKind::MakeDirectory => self::orNothing(
                $after,
                fn (ManifestEntry $left): self => self::removeDirectory($this->path, $left),
            ),
            FileChangeKind::RemoveDirectory => self::makeDirectory($this->path, $before?->mode),
            FileChangeKind::Rename => self::orNothing(
                $after,
                fn (ManifestEntry $left): self => self::rename($this->to ?? $this->path, $left, $this->path),
            ),
            FileChangeKind::Copy => self::orNothing(
                $after,
                fn (ManifestEntry $left): self => self::setAside($this->to ?? $this->path, $left),
            ),
            FileChangeKind::SetAside => $before === null ? null : self::contentsOf($this->path, $before, null),
            FileChangeKind::SetMode => $before?->mode === null
                ? null
                : self::setMode($this->path, $after ?? $before, $before->mode),
        };
    }

    private static function contentsOf(RemotePath $path, ManifestEntry $before, ?ManifestEntry $after): self
    {
        return self::save($path, $after, new StoredContent((string) $before->sha256, $before->size), $before->mode);
    }

    /** @param  \Closure(ManifestEntry): self  $undo */
    private static function orNothing(?ManifestEntry $after, \Closure $undo): ?self
    {
        return $after === null ? null : $undo($after);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind->value,
            'path' => $this->path->toString(),
            'seen' => $this->seen?->toArray(),
            'to' => $this->to?->toString(),
            'sha256' => $this->sha256,
            'size' => $this->size,
            'mode' => $this->mode,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        $to = $fields->textOrNull('to');

        return new self(
            FileChangeKind::from($fields->text('kind')),
            RemotePath::fromString($fields->text('path')),
            $fields->has('seen') ? ManifestEntry::fromFields($fields->fields('seen')) : null,
            $to === null ? null : RemotePath::fromString($to),
            $fields->textOrNull('sha256'),
            $fields->number('size'),
            $fields->numberOrNull('mode'),
        );
    }
}
