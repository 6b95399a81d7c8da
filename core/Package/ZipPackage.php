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
        $this->checkNames($file);
        $packed = 0;
        $unpacked = 0;
        for ($index = 0; $index < $this->zip->numFiles; $index++) {
            $limits->check($name, $index + 1, 0, 1);
            $stat = $this->zip->statIndex($index);
            if ($stat === false) {
                throw PackageRefused::because($name, RefusalReason::Broken, 'in its directory');
            }
            $mode = $this->mode($index, $stat['name'], $stat['encryption_method']);
            $limits->check($stat['name'], 1, $stat['size'], $stat['comp_size']);
            $packed += $stat['comp_size'];
            $unpacked += $stat['size'];
            $this->entries[] = $this->entry($index, $stat['name'], $stat['size'], $stat['mtime'], $mode);
        }
        $limits->check($name, count($this->entries), $unpacked, min($packed, (int) filesize($file)));
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

    /** libzip cuts names at a NUL and takes other control characters for signs of an old code page. */
    private function checkNames(string $file): void
    {
        $count = 0;
        foreach (ZipDirectory::names($file, $this->name) as $raw) {
            $count++;
            if (preg_match('/[\x00-\x1f\x7f]/', $raw) === 1) {
                throw PackageRefused::because(
                    $this->name,
                    RefusalReason::BadName,
                    (string) preg_replace('/[\x00-\x1f\x7f].*/s', '…', $raw),
                );
            }
        }
        if ($count !== $this->zip->numFiles) {
            // There is more than one directory in it, and each reader takes another one.
            throw PackageRefused::because($this->name, RefusalReason::Broken, 'in its directory');
        }
    }

    /** @return int|null twelve bits, null where it was packed on a system without modes */
    private function mode(int $index, string $name, int $cipher): ?int
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
            $mode = is_int($attributes) ? $attributes >> 16 : 0120000;
            if (! in_array($mode & 0170000, [0, 0100000, 0040000], true)) {
                throw PackageRefused::because($this->name, RefusalReason::Link, $name);
            }

            // Some programs say Unix and give no mode at all.
            return ($mode & 07777) === 0 ? null : $mode & 07777;
        }

        return null;
    }

    private function entry(int $index, string $name, int $size, int $modified, ?int $mode): ArchiveEntry
    {
        // Some programs write backslashes, though APPNOTE 4.4.17.1 wants slashes.
        $name = str_replace('\\', '/', $name);

        return new ArchiveEntry(
            $index,
            EntryName::parse($this->name, $name),
            str_ends_with($name, '/'),
            $size,
            $modified > 0 ? $modified : null,
            $mode,
        );
    }
}
