<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\PageNames;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/**
 * Brings a backup back where nobody sees it: unpacks all of it, hashes what lies on the disk then, and has a web server
 * give its pages.
 */
final readonly class Rehearsal
{
    /** Tells a directory for rehearsals from one that holds something else: only in such a one anything is removed. */
    private const MARK = '.rehearsal';

    /**
     * @param  string  $directory  for it alone; what an earlier one left there is removed
     * @param  RehearsalStage|null  $stage  what serves that directory; null where nothing does
     */
    public function __construct(
        private ContentStore $store,
        private string $directory,
        private ?RehearsalStage $stage = null,
    ) {
    }

    /**
     * @param  Manifest  $manifest  every file with its hash
     * @param  list<string>  $startPages  paths in it that visitors may come in at, the first that is there
     * @param  (\Closure(): void)|null  $beat  called for each file; may throw to end it
     *
     * @throws RehearsalFailed
     * @throws StoreFailure when the store does not answer or a key is missing: nothing is said of the backup then
     */
    public function carryOut(Manifest $manifest, array $startPages = [], ?\Closure $beat = null): RehearsalResult
    {
        $began = hrtime(true);
        $this->clear();
        try {
            foreach ($manifest->all() as $entry) {
                $this->unpack($entry);
                $beat === null || $beat();
            }
            foreach ($manifest->files() as $file) {
                $this->compare($file);
                $beat === null || $beat();
            }
            $seen = $this->stage?->show($manifest, $startPages) ?? [0, 0];
        } finally {
            $this->clear();
        }

        return new RehearsalResult(
            count($manifest->files()),
            $manifest->bytes(),
            $seen[0],
            $seen[1],
            count(array_filter($manifest->files(), self::runs(...))),
            (hrtime(true) - $began) / 1e9,
        );
    }

    private static function runs(ManifestEntry $file): bool
    {
        return PageNames::runs($file->path);
    }

    private function unpack(ManifestEntry $entry): void
    {
        $place = "$this->directory/{$entry->path->toString()}";
        $directory = $entry->kind === EntryKind::Directory ? $place : dirname($place);
        if (! is_dir($directory) && ! @mkdir($directory, 0755, true) && ! is_dir($directory)) {
            throw RehearsalFailed::unpacking($entry->path->toString());
        }
        if (! $entry->isFile()) {
            return; // Links are noted in a backup and lead to nothing here.
        }
        $file = @fopen($place, 'xb');
        if ($file === false) {
            throw RehearsalFailed::unpacking($entry->path->toString());
        }
        try {
            $source = $this->store->read((string) $entry->sha256);
            while (($piece = (string) fread($source, 1 << 18)) !== '') {
                if (@fwrite($file, $piece) !== strlen($piece)) {
                    throw RehearsalFailed::unpacking($entry->path->toString());
                }
            }
        } catch (StoreFailure $failure) {
            throw $failure->fault->isOfOneFile()
                ? RehearsalFailed::differs($entry->path->toString(), $failure)
                : $failure;
        } finally {
            fclose($file);
        }
        chmod($place, 0644);
        $entry->modified === null || @touch($place, $entry->modified);
    }

    private function compare(ManifestEntry $file): void
    {
        $place = "$this->directory/{$file->path->toString()}";
        clearstatcache(true, $place);
        $isSame = @filesize($place) === $file->size && @hash_file('sha256', $place) === $file->sha256;
        $isSame || throw RehearsalFailed::differs($file->path->toString());
    }

    /** Everything in the directory, following no link. */
    private function clear(): void
    {
        $isNew = ! is_dir($this->directory);
        if ($isNew && ! @mkdir($this->directory, 0755, true)) {
            throw RehearsalFailed::unpacking($this->directory);
        }
        $mark = "$this->directory/".self::MARK;
        $names = array_diff(@scandir($this->directory) ?: [], ['.', '..']);
        if ($names !== [] && ! is_file($mark)) {
            throw RehearsalFailed::notForRehearsals($this->directory);
        }
        $says = "Everything here is removed by the next rehearsal.\n";
        if (! is_file($mark) && @file_put_contents($mark, $says) === false) {
            throw RehearsalFailed::unpacking($this->directory);
        }
        foreach ($names as $name) {
            $name === self::MARK || self::remove("$this->directory/$name");
        }
    }

    private static function remove(string $path): void
    {
        if (is_dir($path) && ! is_link($path)) {
            foreach (array_diff(@scandir($path) ?: [], ['.', '..']) as $name) {
                self::remove("$path/$name");
            }
            @rmdir($path);
        } else {
            @unlink($path);
        }
    }
}
