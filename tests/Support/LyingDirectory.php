<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\LooksAgain;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Path\RemotePath;

/** A directory whose server confirms what it does not do; each lie is switched on alone. */
final class LyingDirectory implements LooksAgain, RemoteDirectory
{
    /** Whether a written file keeps its first half, and its whole size is claimed. */
    public bool $keepsHalf = false;

    /** Whether a written file keeps its length and has another last byte. */
    public bool $alters = false;

    /** Whether listings are empty, and whether looking by another way is fooled too. */
    public bool $listsNothing = false;

    public bool $hidesByEveryWay = false;

    /** Whether lies begin with the first file that is given its name. */
    public bool $liesFromFirstRename = false;

    /** @var array<int, int> sizes claimed, by inode */
    private array $claimed = [];

    private readonly LocalRemoteDirectory $inner;

    public function __construct(private readonly string $root)
    {
        $this->inner = new LocalRemoteDirectory($root);
    }

    public function list(RemotePath $directory): array
    {
        $entries = $this->inner->list($directory);
        if ($this->listsNothing) {
            return [];
        }

        return array_map(fn (RemoteEntry $entry): RemoteEntry => $this->claiming($directory, $entry), $entries);
    }

    private function claiming(RemotePath $directory, RemoteEntry $entry): RemoteEntry
    {
        $size = $this->claimed[(int) @fileinode("$this->root$directory/$entry->name")] ?? $entry->size;

        return new RemoteEntry($entry->name, $entry->kind, $size, $entry->modified, $entry->mode);
    }

    public function namesOtherwise(RemotePath $directory, array $names): array
    {
        return $this->hidesByEveryWay
            ? []
            : array_map(static fn (RemoteEntry $entry): string => $entry->name, $this->inner->list($directory));
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        return $this->inner->stat($path);
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        return $this->inner->read($file, $sink, $most);
    }

    public function size(RemotePath $file): ?int
    {
        return $this->claimed[(int) @fileinode($this->root.$file)] ?? $this->inner->size($file);
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $bytes = (string) stream_get_contents($source);
        if ($this->alters && $bytes !== '') {
            $bytes[strlen($bytes) - 1] = '~';
        }
        $real = $this->root.$file;
        file_put_contents($real, $this->keepsHalf ? substr($bytes, 0, intdiv(strlen($bytes), 2)) : $bytes);
        $this->claimed[(int) fileinode($real)] = $size;
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->inner->rename($from, $to);
        if ($this->liesFromFirstRename) {
            $this->keepsHalf = true;
        }
    }

    public function remove(RemotePath $file): void
    {
        $this->inner->remove($file);
    }

    public function makeDirectory(RemotePath $directory): void
    {
        $this->inner->makeDirectory($directory);
    }

    public function removeDirectory(RemotePath $directory): void
    {
        $this->inner->removeDirectory($directory);
    }
}
