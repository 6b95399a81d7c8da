<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/**
 * The contents of an archive that was downloaded to be worked on, kept in it as a small file: brought back days later,
 * what was changed is told from what others changed meanwhile. See docs/working-copy.md.
 */
final class WorkingCopy
{
    public const NAME = '.cellarium-working-copy.json';

    private const FORMAT = 'cellarium-working-copy/1';

    /** Of one file, in bytes; what is larger is on no host. */
    private const LARGEST = 1 << 50;

    /** So long as a hash is, which is not known before a file was read. */
    private const UNKNOWN = '0000000000000000000000000000000000000000000000000000000000000000';

    /** @param  array<string, ManifestEntry>  $files  by path from the directory */
    private function __construct(
        public readonly string $from,
        public readonly RemotePath $directory,
        public readonly int $at,
        private array $files,
    ) {
    }

    /**
     * @param  string  $from  a site's domain, or an account
     * @param  int  $at  seconds since 1970
     * @param  iterable<ManifestEntry>  $entries  paths from the directory
     */
    public static function fromEntries(string $from, RemotePath $directory, int $at, iterable $entries): self
    {
        $files = [];
        foreach ($entries as $entry) {
            $entry->isFile() && $files[$entry->path->toString()] = $entry->withSha256(self::UNKNOWN);
        }

        return new self($from, $directory, $at, $files);
    }

    /**
     * It was in other hands, so nothing in it is believed that could not have been written here.
     *
     * @throws \UnexpectedValueException where it is none, or of another kind than is known here
     */
    public static function fromText(string $text): self
    {
        try {
            return self::read($text);
        } catch (PathRefused $refused) {
            throw new \UnexpectedValueException("A path in it is none: {$refused->getMessage()}.", 0, $refused);
        }
    }

    private static function read(string $text): self
    {
        $fields = JsonFields::fromJson($text);
        $fields->textOrNull('format') === self::FORMAT
            || throw new \UnexpectedValueException('This is no working copy that is known here.');
        $files = [];
        foreach ($fields->each('files') as $file) {
            $entry = ManifestEntry::fromFields(new JsonFields([
                'path' => $file->text('path'),
                'kind' => 'file',
                'size' => $file->number('size'),
                'modified' => $file->numberOrNull('modified'),
                'mode' => $file->numberOrNull('mode'),
                'sha256' => $file->text('sha256'),
                'read_at' => null,
            ]));
            preg_match('/\A[0-9a-f]{64}\z/', (string) $entry->sha256) === 1
                || throw new \UnexpectedValueException("The hash of $entry->path is none.");
            ($entry->size >= 0 && $entry->size <= self::LARGEST && ($entry->mode ?? 0) >= 0 && $entry->mode <= 07777)
                || throw new \UnexpectedValueException("The size or mode of $entry->path is none.");
            $files[$entry->path->toString()] = $entry;
        }

        return new self(
            $fields->text('from'),
            RemotePath::fromString($fields->text('directory')),
            $fields->number('at'),
            $files,
        );
    }

    /** Notes what a file held that was read; its text stays as long as it was. */
    public function hold(RelativePath $path, string $sha256): void
    {
        $this->files[$path->toString()] = $this->files[$path->toString()]->withSha256($sha256);
    }

    /** What was not given out is none of it, and its absence says nothing when it comes back. */
    public function leaveOut(RelativePath $path): void
    {
        unset($this->files[$path->toString()]);
    }

    public function manifest(): Manifest
    {
        return Manifest::fromEntries(array_values($this->files));
    }

    public function toText(): string
    {
        return json_encode([
            'format' => self::FORMAT,
            'from' => $this->from,
            'directory' => $this->directory->toString(),
            'at' => $this->at,
            'files' => array_map(static fn (ManifestEntry $file): array => [
                'path' => $file->path->toString(),
                'size' => $file->size,
                'modified' => $file->modified,
                'mode' => $file->mode,
                'sha256' => $file->sha256,
            ], array_values($this->files)),
        ], JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR)."\n";
    }
}
