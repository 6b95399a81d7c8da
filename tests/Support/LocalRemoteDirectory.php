<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\CopiesFiles;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RenamesTogether;
use Cellarium\Core\Connection\SetsModes;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;

/** A directory of this machine behind the same contract; "/" is that directory. */
final readonly class LocalRemoteDirectory implements CopiesFiles, RemoteDirectory, RenamesTogether, SetsModes
{
    /** @param  string  $root absolute, exists */
    public function __construct(private string $root)
    {
    }

    public function list(RemotePath $directory): array
    {
        $real = $this->real($directory);
        $names = is_dir($real) ? @scandir($real) : throw $this->failure("listing $directory", $real);
        if ($names === false) {
            throw RemoteFailure::while("listing $directory", FailureReason::Forbidden);
        }

        return array_map(
            fn (string $name): RemoteEntry => $this->entry("$real/$name", $name),
            array_values(array_diff($names, ['.', '..'])),
        );
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        $real = $this->real($path);

        return file_exists($real) || is_link($real) ? $this->entry($real, WireName::toWire($path->name())) : null;
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        $source = @fopen($this->real($file), 'rb');
        if ($source === false) {
            throw $this->failure("reading $file", $this->real($file));
        }
        try {
            $bytes = @stream_copy_to_stream($source, $sink, $most);
            $whole = $bytes === @filesize($this->real($file));
        } finally {
            fclose($source);
        }

        return $bytes === false || ! $whole
            ? throw RemoteFailure::while(
                "reading $file",
                $bytes === $most ? FailureReason::Incomplete : FailureReason::LocalFile,
            )
            : $bytes;
    }

    public function size(RemotePath $file): ?int
    {
        clearstatcache(true, $this->real($file));
        $size = @filesize($this->real($file));

        return $size === false ? null : $size;
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $sink = @fopen($this->real($file), 'wb');
        if ($sink === false) {
            throw $this->failure("writing $file", dirname($this->real($file)));
        }
        try {
            $bytes = stream_copy_to_stream($source, $sink);
        } finally {
            fclose($sink);
        }
        clearstatcache(true, $this->real($file));
        if ($bytes !== $size) {
            throw RemoteFailure::while("writing $file", FailureReason::LocalFile);
        }
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        if (! @rename($this->real($from), $this->real($to))) {
            throw $this->failure("renaming $from to $to", $this->real($from));
        }
    }

    public function renameTogether(array $renames): array
    {
        $said = [];
        foreach ($renames as [$from, $to]) {
            $isDone = @rename($this->real($from), $this->real($to));
            $said[] = $isDone ? null : error_get_last()['message'] ?? 'refused';
        }

        return $said;
    }

    public function copy(RemotePath $from, RemotePath $to): bool
    {
        return @copy($this->real($from), $this->real($to))
            ?: throw $this->failure("copying $from to $to", $this->real($from));
    }

    public function remove(RemotePath $file): void
    {
        if (! @unlink($this->real($file))) {
            throw $this->failure("removing $file", $this->real($file));
        }
    }

    public function makeDirectory(RemotePath $directory): void
    {
        if (! is_dir($this->real($directory)) && ! @mkdir($this->real($directory))) {
            throw $this->failure("making $directory", dirname($this->real($directory)));
        }
    }

    public function removeDirectory(RemotePath $directory): void
    {
        if (! @rmdir($this->real($directory))) {
            throw $this->failure("removing $directory", $this->real($directory));
        }
    }

    public function setMode(RemotePath $path, int $mode): void
    {
        if (! @chmod($this->real($path), $mode)) {
            throw $this->failure("setting the mode of $path", $this->real($path));
        }
    }

    private function real(RemotePath $path): string
    {
        return $this->root.($path->depth() === 0 ? '' : WireName::toWire($path->toString()));
    }

    private function entry(string $real, string $name): RemoteEntry
    {
        clearstatcache(true, $real);
        $stat = @lstat($real);
        if ($stat === false) {
            throw RemoteFailure::while("looking at $name", FailureReason::Forbidden);
        }
        $kind = match ($stat['mode'] & 0170000) {
            0100000 => EntryKind::File,
            0040000 => EntryKind::Directory,
            0120000 => EntryKind::Link,
            default => EntryKind::Other,
        };

        return new RemoteEntry(
            $name === '' ? '' : WireName::fromWire($name),
            $kind,
            $kind === EntryKind::File ? $stat['size'] : null,
            $stat['mtime'],
            $stat['mode'] & 07777,
            target: $kind === EntryKind::Link ? WireName::fromWire((string) readlink($real)) : null,
        );
    }

    private function failure(string $what, string $needed): RemoteFailure
    {
        return RemoteFailure::while($what, file_exists($needed) ? FailureReason::Forbidden : FailureReason::NotFound);
    }
}
