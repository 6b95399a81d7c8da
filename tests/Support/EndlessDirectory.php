<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;

/** A server that never comes to an end: what each directory lists is made up as it is asked for. */
final class EndlessDirectory implements \Cellarium\Core\Connection\RemoteDirectory
{
    public int $listed = 0;

    /** @param  \Closure(RemotePath): list<RemoteEntry>  $lists */
    public function __construct(private readonly \Closure $lists)
    {
    }

    public static function directory(string $name, int $modified = 1_700_000_000): RemoteEntry
    {
        return new RemoteEntry($name, EntryKind::Directory, null, $modified);
    }

    public static function file(string $name, int $size = 1): RemoteEntry
    {
        return new RemoteEntry($name, EntryKind::File, $size, 1_700_000_000);
    }

    public function list(RemotePath $directory): array
    {
        $this->listed++;

        return ($this->lists)($directory);
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        return null;
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        return 0;
    }

    public function size(RemotePath $file): ?int
    {
        return null;
    }

    public function write(RemotePath $file, $source, int $size): void
    {
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
    }

    public function remove(RemotePath $file): void
    {
    }

    public function makeDirectory(RemotePath $directory): void
    {
    }

    public function removeDirectory(RemotePath $directory): void
    {
    }
}
