<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use ZipArchive;

/** A zip archive; everything its directory declares is checked before the first byte is unpacked. */
final class ZipPackage implements Archive
{
    private const CHUNK = 65536;

    private readonly ZipArchive $zip;

    /** @var list<ArchiveEntry> */
    private array $entries = [];

    private int $unpacked = 0;

    /**
     * @param  string  $name  what people call the archive
     *
     * @throws PackageRefused
     */
    public function __construct(string $file, private readonly string $name, private readonly ArchiveLimits $limits)
    {
        $this->zip = new ZipArchive;
        $opened = $this->zip->open($file, ZipArchive::RDONLY);
        if ($opened !== true) {
            throw PackageRefused::because(
                $name,
                $opened === ZipArchive::ER_NOZIP ? RefusalReason::NotAnArchive : RefusalReason::Broken,
            );
        }
        foreach (ZipDirectory::names($file, $name) as $raw) {
            if (str_contains($raw, "\0")) {
                throw PackageRefused::because($name, RefusalReason::BadName, (string) strtok($raw, "\0"));
            }
        }
        $packed = 0;
        $unpacked = 0;
        for ($index = 0; $index < $this->zip->numFiles; $index++) {
            $limits->check(
                $name,
                $index + 1,
                0,
                1,
            );
            $stat = $this->zip->statIndex($index);
            if ($stat === false) {
                throw PackageRefused::because($name, RefusalReason::Broken, 'in its directory');
            }
            $this->refuseLinkOrCipher($index, $stat['name'], $stat['encryption_method']);
            $limits->check(
                $stat['name'],
                1,
                $stat['size'],
                $stat['comp_size'],
            );
            $packed += $stat['comp_size'];
            $unpacked += $stat['size'];
            $this->entries[] = $this->entry(
                $index,
                $stat['name'],
                $stat['size'],
                $stat['mtime'],
            );
        }
        $limits->check(
            $name,
            count($this->entries),
            $unpacked,
            min($packed, (int) filesize($file)),
        );
    }

    public function entries(): iterable
    {
        return $this->entries;
    }

    public function chunks(ArchiveEntry $entry): iterable
    {
        $stream = $this->zip->getStreamIndex($entry->index);
        if ($stream === false) {
            throw PackageRefused::because($this->name, RefusalReason::Broken, "at $entry->path");
        }
        $bytes = 0;
        $crc = hash_init('crc32b');
        try {
            while (! feof($stream)) {
                $chunk = @fread($stream, self::CHUNK);
                if ($chunk === false || ($chunk === '' && ! feof($stream))) {
                    throw PackageRefused::because($this->name, RefusalReason::Broken, "at $entry->path");
                }
                $bytes += strlen($chunk);
                $this->unpacked += strlen($chunk);
                if ($bytes > $entry->size || $this->unpacked > $this->limits->totalBytes) {
                    throw PackageRefused::because($this->name, RefusalReason::Bomb);
                }
                hash_update($crc, $chunk);
                yield $chunk;
            }
        } finally {
            fclose($stream);
        }
        $stat = $this->zip->statIndex($entry->index);
        if ($bytes !== $entry->size || $stat === false || hexdec(hash_final($crc)) !== ($stat['crc'] & 0xFFFFFFFF)) {
            throw PackageRefused::because($this->name, RefusalReason::Broken, "at $entry->path");
        }
    }

    private function refuseLinkOrCipher(int $index, string $name, int $cipher): void
    {
        if ($cipher !== ZipArchive::EM_NONE) {
            throw PackageRefused::because($this->name, RefusalReason::Encrypted, $name);
        }
        $system = 0;
        $attributes = 0;
        if (
            $this->zip->getExternalAttributesIndex($index, $system, $attributes)
            && $system === ZipArchive::OPSYS_UNIX
        ) {
            $kind = (is_int($attributes) ? $attributes >> 16 : 0120000) & 0170000;
            if (! in_array($kind, [0, 0100000, 0040000], true)) {
                throw PackageRefused::because($this->name, RefusalReason::Link, $name);
            }
        }
    }

    private function entry(
        int $index,
        string $name,
        int $size,
        int $modified,
    ): ArchiveEntry {
        // Some programs write backslashes, though APPNOTE 4.4.17.1 wants slashes.
        $name = str_replace('\\', '/', $name);

        return new ArchiveEntry(
            $index,
            EntryName::parse($this->name, $name),
            str_ends_with($name, '/'),
            $size,
            $modified > 0 ? $modified : null,
        );
    }
}
