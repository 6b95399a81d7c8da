<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Archive\ZippedSize;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/**
 * A backup, or a part of it, as one archive: names as they are, with the times they had on the server, and the
 * manifest.
 *
 * All of it is read before the first byte is given, so that what is saved is whole; what is read meanwhile is not held.
 */
final readonly class BackupArchive
{
    private const MANIFEST = 'backup-manifest';

    /**
     * @param  array<string, int>  $sums  CRC-32 by path
     * @param  string  $list  the manifest as text
     */
    private function __construct(
        private Manifest $manifest,
        private ContentStore $store,
        private array $sums,
        private string $list,
    ) {
    }

    /**
     * @param  Manifest  $manifest  every file with its hash
     *
     * @throws StoreFailure naming the first file that is not as it was
     */
    public static function fromManifest(Manifest $manifest, ContentStore $store): self
    {
        $sums = [];
        $byContents = [];
        foreach ($manifest->files() as $file) {
            $sha256 = $file->sha256 ?? throw StoreFailure::damaged($file->path->toString());
            $byContents["$sha256 $file->size"] ??= self::sum($store, $file);
            $sums[$file->path->toString()] = $byContents["$sha256 $file->size"];
        }

        return new self($manifest, $store, $sums, $manifest->toText());
    }

    /** Bytes that send() gives. */
    public function length(): int
    {
        $entries = [];
        foreach ($this->manifest->all() as $entry) {
            $path = $entry->path->toString();
            match ($entry->kind) {
                EntryKind::File => $entries[] = [$path, $entry->size],
                EntryKind::Directory => $entries[] = ["$path/", 0],
                default => null, // Links and the like have no contents that were kept; the manifest tells of them.
            };
        }

        return ZipOut::length([...$entries, [$this->listName(), strlen($this->list)]]);
    }

    /**
     * @param  \Closure(string): void  $out
     *
     * @throws StoreFailure where a file has been damaged since; what was given is then no whole archive
     */
    public function send(\Closure $out): void
    {
        $zip = new ZipOut($out);
        foreach ($this->manifest->all() as $entry) {
            $path = $entry->path->toString();
            if ($entry->kind === EntryKind::Directory) {
                $zip->directory($path, $entry->modified, $entry->mode);
            } elseif ($entry->isFile()) {
                $zip->file(
                    $path,
                    $entry->modified,
                    $entry->mode,
                    ZippedSize::stored($entry->size, $this->sums[$path]),
                    $this->store->read((string) $entry->sha256),
                );
            }
        }
        $list = fopen('php://memory', 'w+b');
        assert($list !== false);
        fwrite($list, $this->list);
        rewind($list);
        $zip->file($this->listName(), null, null, ZippedSize::stored(strlen($this->list), crc32($this->list)), $list);
        $zip->finish();
    }

    /** One that no file of the site has. */
    private function listName(): string
    {
        $name = self::MANIFEST;
        while ($this->manifest->get("$name.jsonl") !== null) {
            $name .= '-';
        }

        return "$name.jsonl";
    }

    private static function sum(ContentStore $store, ManifestEntry $file): int
    {
        try {
            $stream = $store->read((string) $file->sha256);
            $sum = hash_init('crc32b');
            $size = hash_update_stream($sum, $stream);
        } catch (StoreFailure $failure) {
            throw $failure->of($file->path->toString());
        }

        return $size === $file->size
            ? (int) hexdec(hash_final($sum))
            : throw StoreFailure::damaged($file->path->toString());
    }
}
