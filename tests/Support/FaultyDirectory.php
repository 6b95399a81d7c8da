<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\CopiesFiles;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RenamesTogether;
use Cellarium\Core\Path\RemotePath;

/** A real directory with something going wrong at a chosen operation, before or after it took effect. */
class FaultyDirectory implements CopiesFiles, RemoteDirectory, RenamesTogether
{
    public int $operations = 0;

    /**
     * @param  \Closure(int): ?\Throwable  $before  is given the operation's number; what it returns is thrown
     *     instead of doing it
     * @param  \Closure(int): ?\Throwable  $after  the same, once it is done
     * @param  bool  $tears  whether names given together are given one after the other, each of
     *     them an operation
     */
    public function __construct(
        private readonly RemoteDirectory $inner,
        private readonly \Closure $before,
        private readonly \Closure $after,
        private readonly bool $tears = false,
    ) {
    }

    public function list(RemotePath $directory): array
    {
        return $this->do(fn (): array => $this->inner->list($directory));
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        return $this->do(fn (): ?RemoteEntry => $this->inner->stat($path));
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        return $this->do(fn (): int => $this->inner->read($file, $sink, $most), function () use ($file, $sink): int {
            $whole = fopen('php://temp', 'w+b');
            $half = intdiv($this->inner->read($file, $whole), 2);
            rewind($whole);

            return (int) stream_copy_to_stream($whole, $sink, $half);
        });
    }

    public function size(RemotePath $file): ?int
    {
        return $this->do(fn (): ?int => $this->inner->size($file));
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $this->do(fn () => $this->inner->write($file, $source, $size), function () use ($file, $source, $size): void {
            $half = fopen('php://temp', 'w+b');
            fwrite($half, (string) fread($source, max(1, intdiv($size, 2))));
            rewind($half);
            $this->inner->write($file, $half, (int) fstat($half)['size']);
        });
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->do(fn () => $this->inner->rename($from, $to));
    }

    public function renameTogether(array $renames): array
    {
        $inner = $this->inner;
        if (! $inner instanceof RenamesTogether) {
            throw new \LogicException('nothing to break');
        }
        if (! $this->tears) {
            return $this->do(static fn (): array => $inner->renameTogether($renames));
        }
        $said = [];
        foreach ($renames as $one) {
            $said = [...$said, ...$this->do(static fn (): array => $inner->renameTogether([$one]))];
        }

        return $said;
    }

    public function copy(RemotePath $from, RemotePath $to): bool
    {
        return $this->do(fn (): bool => $this->inner instanceof CopiesFiles && $this->inner->copy($from, $to));
    }

    public function remove(RemotePath $file): void
    {
        $this->do(fn () => $this->inner->remove($file));
    }

    public function makeDirectory(RemotePath $directory): void
    {
        $this->do(fn () => $this->inner->makeDirectory($directory));
    }

    public function removeDirectory(RemotePath $directory): void
    {
        $this->do(fn () => $this->inner->removeDirectory($directory));
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $work
     * @param  (\Closure(): T)|null  $half  the same, cut short
     * @return T
     */
    public function do(\Closure $work, ?\Closure $half = null): mixed
    {
        $number = ++$this->operations;
        $fault = ($this->before)($number);
        if ($fault instanceof CutShort) {
            return ($half ?? $work)();
        }
        if ($fault !== null) {
            throw $fault;
        }
        $result = $work();
        if (($fault = ($this->after)($number)) !== null) {
            throw $fault;
        }

        return $result;
    }
}
