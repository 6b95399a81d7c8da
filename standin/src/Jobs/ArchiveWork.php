<?php

declare(strict_types=1);

namespace Cellarium\Standin\Jobs;

use FilesystemIterator;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use RuntimeException;
use SplFileInfo;
use ZipArchive;

/** Packs and unpacks; runs in a process of its own, so that the services go on meanwhile. */
final readonly class ArchiveWork
{
    /** @param  \Closure(int, int): void  $tell  files done and of how many */
    public function __construct(private \Closure $tell)
    {
    }

    /**
     * @param  int  $room  bytes that may still be stored
     * @return int bytes that more are stored than before
     *
     * @throws RuntimeException nothing outside the directory is touched
     */
    public function unpack(string $archive, string $into, int $room): int
    {
        $zip = new ZipArchive;
        if ($zip->open($archive, ZipArchive::RDONLY) !== true) {
            throw new RuntimeException('It is no zip archive, or it is damaged.');
        }
        $stored = 0;
        for ($index = 0; $index < $zip->numFiles; $index++) {
            $facts = $zip->statIndex($index);
            $name = is_array($facts) ? (string) $facts['name'] : '';
            $this->refuseOdd($zip, $index, $name);
            $target = "$into/$name";
            if (str_ends_with($name, '/')) {
                is_dir($target) || mkdir($target, 0755, true);
            } else {
                $stored += $this->write($zip, $index, $target, $room - $stored);
            }
            ($this->tell)($index + 1, $zip->numFiles);
        }
        $zip->close();

        return $stored;
    }

    /** @return int bytes of the archive */
    public function pack(string $directory, string $archive, int $room): int
    {
        $zip = new ZipArchive;
        if ($zip->open("$archive.part", ZipArchive::CREATE | ZipArchive::OVERWRITE) !== true) {
            throw new RuntimeException('The archive cannot be written there.');
        }
        $tree = new RecursiveIteratorIterator(
            new RecursiveDirectoryIterator($directory, FilesystemIterator::SKIP_DOTS),
            RecursiveIteratorIterator::SELF_FIRST,
        );
        /** @var SplFileInfo $found */
        foreach ($tree as $found) {
            $name = substr($found->getPathname(), strlen($directory) + 1);
            if ($found->isDir() && ! $found->isLink()) {
                $zip->addEmptyDir($name);
            } elseif ($found->isFile() && ! $found->isLink()) {
                $zip->addFile($found->getPathname(), $name);
                $zip->setCompressionName($name, ZipArchive::CM_DEFLATE, 1);
            }
        }
        $total = $zip->numFiles;
        $zip->registerProgressCallback(0.02, fn (float $share) => ($this->tell)((int) ($share * $total), $total));
        $packed = $zip->close();
        $bytes = $packed ? (int) filesize("$archive.part") : 0;
        if (! $packed || $bytes > $room) {
            @unlink("$archive.part");
            throw new RuntimeException($packed ? 'The account has no room for it.' : 'It could not be packed.');
        }
        rename("$archive.part", $archive);

        return $bytes;
    }

    /** An archive is a guest: its names stay inside, and it brings no links. */
    private function refuseOdd(ZipArchive $zip, int $index, string $name): void
    {
        $isOutside = $name === '' || str_starts_with($name, '/') || str_contains($name, "\0")
            || in_array('..', explode('/', str_replace('\\', '/', $name)), true);
        $isLink = (self::unixMode($zip, $index) & 0170000) === 0120000;
        if ($isOutside || $isLink) {
            throw new RuntimeException('A name in the archive leads out: '.mb_scrub(mb_substr($name, 0, 80)));
        }
    }

    private function write(ZipArchive $zip, int $index, string $target, int $room): int
    {
        $before = is_file($target) ? (int) filesize($target) : 0;
        is_dir(dirname($target)) || mkdir(dirname($target), 0755, true);
        $source = $zip->getStreamIndex($index);
        $sink = fopen($target, 'wb');
        if ($source === false || $sink === false) {
            throw new RuntimeException('A file of the archive cannot be written.');
        }
        // What an archive says of sizes is not believed: no more is written than there is room for.
        $bytes = (int) stream_copy_to_stream($source, $sink, max(0, $room + $before) + 1);
        fclose($source);
        fclose($sink);
        $mode = self::unixMode($zip, $index) & 0777;
        $mode !== 0 && chmod($target, $mode);
        if ($bytes > $room + $before) {
            unlink($target);
            throw new RuntimeException('The account has no room for all that is in the archive.');
        }

        return $bytes - $before;
    }

    /** Sixteen bits; 0 where the archive tells none. */
    private static function unixMode(ZipArchive $zip, int $index): int
    {
        $system = 0;
        $attributes = 0;
        $zip->getExternalAttributesIndex($index, $system, $attributes);

        return $system === ZipArchive::OPSYS_UNIX && is_int($attributes) ? ($attributes >> 16) & 0177777 : 0;
    }
}
