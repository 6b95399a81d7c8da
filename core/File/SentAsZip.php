<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Archive\ZippedSize;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/**
 * Files of a host as an archive that is sent while they are read, over as many connections as there are.
 *
 * A few are read whole before a byte of them goes on, so that one that does not come, or has other bytes than were
 * listed, is no part of an archive that looks whole; of all the others nothing lies here meanwhile.
 */
final readonly class SentAsZip
{
    /** So much lies here at a time; one larger file lies here alone. */
    private const FILES = 64;

    private const BYTES = 64_000_000;

    /**
     * @param  string  $scratch  an empty directory of ours
     * @param  \Closure(): void  $goesOn  called between files; throws where nobody takes it any more
     * @param  (\Closure(ManifestEntry, string): bool)|null  $isLeftOut  asked of each file once its bytes lie here,
     *     with
     *     where they do; null where all are given
     */
    public function __construct(
        private TransferPool $pool,
        private string $scratch,
        private ZipOut $zip,
        private \Closure $goesOn,
        private ?\Closure $isLeftOut = null,
    ) {
    }

    /**
     * @param  list<ManifestEntry>  $entries  in their order, paths from the directory
     * @param  WorkingCopy|null  $copy  that is told what each holds
     *
     * @throws TransferFailed|StoreFailure
     */
    public function send(RemotePath $at, array $entries, ?WorkingCopy $copy = null): void
    {
        foreach (self::parts($entries) as $part) {
            $local = $this->fetched($at, $part);
            foreach ($part as $number => $entry) {
                ($this->goesOn)();
                $entry->isFile()
                    ? $this->file($entry, $local[$number], $copy)
                    : $this->zip->directory(WireName::toWire((string) $entry->path), $entry->modified, $entry->mode);
            }
        }
    }

    /**
     * @param  list<ManifestEntry>  $entries
     * @return \Generator<int, list<ManifestEntry>>
     */
    private static function parts(array $entries): \Generator
    {
        $part = [];
        $bytes = 0;
        foreach ($entries as $entry) {
            if ($part !== [] && (count($part) === self::FILES || $bytes + $entry->size > self::BYTES)) {
                yield $part;
                $part = [];
                $bytes = 0;
            }
            $part[] = $entry;
            $bytes += $entry->size;
        }
        if ($part !== []) {
            yield $part;
        }
    }

    /**
     * @param  list<ManifestEntry>  $part
     * @return array<int, string> our files, by their places in it
     */
    private function fetched(RemotePath $at, array $part): array
    {
        $local = [];
        $jobs = [];
        foreach ($part as $number => $entry) {
            if ($entry->isFile()) {
                $local[$number] = "$this->scratch/$number";
                $jobs[] = new FetchFile($at->join($entry->path), $local[$number], $entry->size, (string) $entry->path);
            }
        }
        $this->pool->run($jobs);

        return $local;
    }

    private function file(ManifestEntry $entry, string $local, ?WorkingCopy $copy): void
    {
        $bytes = @fopen($local, 'rb');
        if ($bytes === false) {
            throw StoreFailure::missing((string) $entry->path);
        }
        if ($this->isLeftOut !== null && ($this->isLeftOut)($entry, $local)) {
            $copy?->leaveOut($entry->path);
            fclose($bytes);
            unlink($local);

            return;
        }
        $copy?->hold($entry->path, (string) hash_file('sha256', $local));
        $this->zip->file(
            WireName::toWire((string) $entry->path),
            $entry->modified,
            $entry->mode,
            ZippedSize::stored($entry->size, (int) hexdec((string) hash_file('crc32b', $local))),
            $bytes,
        );
        fclose($bytes);
        unlink($local);
    }
}
