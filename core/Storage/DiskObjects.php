<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Sealed contents in files named by their hash, 256 directories of them, below one directory of their owner's. */
final readonly class DiskObjects implements StoredObjects
{
    /**
     * @param  bool  $isDurable  whether what is kept for good survives a loss of power
     * @param  bool  $isBulk  whether that is seen to for many at once, by flush()
     */
    public function __construct(
        private string $directory,
        private bool $isDurable = true,
        private bool $isBulk = false,
    ) {
    }

    public function incoming(): string
    {
        self::make("$this->directory/incoming");

        return "$this->directory/incoming/".bin2hex(random_bytes(12));
    }

    public function publish(string $file, string $name): void
    {
        self::make(dirname($this->path($name)));
        $this->isDurable && ! $this->isBulk && self::sync($file);
        if (! @chmod($file, 0600) || ! @rename($file, $this->path($name))) {
            throw StoreFailure::writing($this->path($name));
        }
    }

    public function flush(): void
    {
        if (! $this->isDurable || ! is_dir($this->directory)) {
            return;
        }
        // PHP cannot ask for that; sync(1) of coreutils can.
        $process = proc_open(
            ['sync', '--file-system', $this->directory],
            [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
        );
        if ($process === false || proc_close($process) !== 0) {
            throw StoreFailure::writing($this->directory);
        }
    }

    public function has(string $name): bool
    {
        return is_file($this->path($name)) || is_file($this->aside($name));
    }

    public function refresh(string $name): bool
    {
        // Back before it is touched: from then on nothing empties it away.
        return self::touch($this->path($name))
            || ($this->isBack($name) && self::touch($this->path($name)));
    }

    public function open(string $name)
    {
        // It may be on its way aside, and back again in between.
        foreach ([$this->path($name), $this->aside($name), $this->path($name)] as $path) {
            $file = @fopen($path, 'rb');
            if ($file !== false) {
                return $file;
            }
        }
        is_file($this->path($name)) && throw StoreFailure::unreachable(
            "opening {$this->path($name)}",
            new \RuntimeException('the disk gives no file'),
        );

        throw StoreFailure::missing($name);
    }

    public function isUntouched(string $name, int $before): bool
    {
        clearstatcache(true, $this->path($name));
        $time = @filemtime($this->path($name));

        return $time !== false && $time < $before;
    }

    public function moveAside(string $name, int $before): ?int
    {
        self::make("$this->directory/aside");
        if (! self::moveOut($this->path($name), $this->aside($name), $before)) {
            return null;
        }
        // From when it counts; where this is not reached, the time of the rename does, see inAside().
        self::touch($this->aside($name));

        return (int) @filesize($this->aside($name));
    }

    public function inAside(): iterable
    {
        foreach (self::namesIn("$this->directory/aside") as $name) {
            $facts = preg_match('/\A[0-9a-f]{64}\z/', $name) === 1 ? @stat($this->aside($name)) : false;
            if ($facts !== false) {
                yield $name => new AsideContent($facts['size'], max($facts['mtime'], $facts['ctime']));
            }
        }
    }

    /** @return list<string> */
    private static function namesIn(string $directory): array
    {
        $names = is_dir($directory) ? scandir($directory) : [];

        return $names === false ? throw StoreFailure::reading($directory) : $names;
    }

    public function deleteAside(string $name): int
    {
        return self::unlink($this->aside($name));
    }

    public function settle(): void
    {
        // Where an earlier version put what was being removed when it was killed.
        foreach (glob("$this->directory/leaving/*") ?: [] as $file) {
            self::moveBack($file, $this->path(basename($file)));
        }
    }

    public function sizes(string $from = ''): iterable
    {
        foreach (glob("$this->directory/[0-9a-f][0-9a-f]", GLOB_ONLYDIR) ?: [] as $directory) {
            $first = basename($directory);
            if ($first < substr($from, 0, 2)) {
                continue;
            }
            foreach (scandir($directory) ?: [] as $rest) {
                if (preg_match('/\A[0-9a-f]{62}\z/', $rest) === 1 && $first.$rest >= $from) {
                    yield $first.$rest => (int) @filesize("$directory/$rest");
                }
            }
        }
    }

    public function mustHave(Mark $mark): void
    {
        $mark->mustBeIn([$this->directory]);
    }

    public function take(Mark $mark): void
    {
        $mark->putInto($this->directory);
    }

    public function room(): ?int
    {
        self::make($this->directory);
        $free = @disk_free_space($this->directory);

        return $free === false ? null : (int) $free;
    }

    /**
     * Takes a file out of its place, unless somebody has touched it since.
     *
     * It is looked at once it is out: whoever touches it before that finds it in its place afterwards as well only
     * where this sees the new time and puts it back; whoever comes later does not find it there.
     */
    public static function moveOut(string $file, string $out, int $before): bool
    {
        clearstatcache(true, $file);
        if ((int) @filemtime($file) >= $before || ! @rename($file, $out)) {
            return false;
        }
        clearstatcache(true, $out);
        if ((int) @filemtime($out) >= $before) {
            self::moveBack($out, $file);

            return false;
        }

        return true;
    }

    /** One that has come anew meanwhile holds the same. */
    public static function moveBack(string $out, string $file): void
    {
        @rename($out, $file) || ! is_file($out) || throw StoreFailure::writing($file);
    }

    /**
     * Gives a file the present time without making one where there is none, as touch() would.
     *
     * @return bool whether it was in its place afterwards
     *
     * @phpstan-impure
     */
    public static function touch(string $file): bool
    {
        $open = @fopen($file, 'r+b');
        if ($open === false) {
            return false;
        }
        try {
            // To the size it has: POSIX has ftruncate() set the time.
            $size = max(0, fstat($open)['size'] ?? 0);
            $isTouched = ftruncate($open, $size);
        } finally {
            fclose($open);
        }
        clearstatcache(true, $file);

        return $isTouched && is_file($file);
    }

    public static function make(string $directory): void
    {
        if (! is_dir($directory) && ! @mkdir($directory, 0700, true) && ! is_dir($directory)) {
            throw StoreFailure::writing($directory);
        }
    }

    private static function unlink(string $file): int
    {
        $size = (int) @filesize($file);

        return @unlink($file) ? $size : 0;
    }

    private function path(string $name): string
    {
        if (preg_match('/\A[0-9a-f]{64}\z/', $name) !== 1) {
            throw StoreFailure::missing($name);
        }

        return "$this->directory/".substr($name, 0, 2).'/'.substr($name, 2);
    }

    private function aside(string $name): string
    {
        return preg_match('/\A[0-9a-f]{64}\z/', $name) === 1
            ? "$this->directory/aside/$name"
            : throw StoreFailure::missing($name);
    }

    private function isBack(string $name): bool
    {
        self::make(dirname($this->path($name)));

        return is_file($this->aside($name)) && @rename($this->aside($name), $this->path($name));
    }

    private static function sync(string $file): void
    {
        $stream = fopen($file, 'r+b');
        if ($stream === false || ! fsync($stream)) {
            throw StoreFailure::writing($file);
        }
        fclose($stream);
    }
}
