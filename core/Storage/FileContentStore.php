<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Contents in files named by their hash, 256 directories of them, below one directory outside any document root. */
final readonly class FileContentStore implements ContentStore
{
    /** Up to here contents are held and hashed before a file is made for them. */
    private const HELD_BYTES = 262_144;

    /** @param  bool  $isDurable  whether what is kept is on the disk when put() returns, through a loss of power */
    public function __construct(private string $directory, private bool $isDurable = true)
    {
    }

    public function put(iterable $chunks): StoredContent
    {
        $file = $this->incoming();
        $stream = null;
        $held = '';
        try {
            foreach ($chunks as $chunk) {
                $held .= $chunk;
                if (strlen($held) > self::HELD_BYTES) {
                    $stream ??= self::open($file);
                    self::write($stream, $held, $file);
                    $held = '';
                }
            }
            $known = $stream === null ? $this->known($held) : null;
            if ($known !== null) {
                return $known;
            }
            $stream ??= self::open($file);
            self::write($stream, $held, $file);
            fflush($stream);
        } catch (\Throwable $failure) {
            @unlink($file);
            throw $failure;
        } finally {
            $stream === null || fclose($stream);
        }

        return $this->adopt($file);
    }

    /** What is small and here already need not be written once more: icons and empty files are in every version. */
    private function known(string $bytes): ?StoredContent
    {
        $sha256 = hash('sha256', $bytes);
        if (! $this->isIntact($sha256, strlen($bytes))) {
            return null;
        }
        // Found again: a sweep must not take it for forgotten before it is referred to.
        @touch($this->path($sha256));

        return new StoredContent($sha256, strlen($bytes));
    }

    /** @return resource */
    private static function open(string $file)
    {
        $stream = @fopen($file, 'xb');

        return $stream === false ? throw StoreFailure::writing($file) : $stream;
    }

    /** @param  resource  $stream */
    private static function write($stream, string $bytes, string $file): void
    {
        if (@fwrite($stream, $bytes) !== strlen($bytes)) {
            throw StoreFailure::writing($file);
        }
    }

    public function adopt(string $file): StoredContent
    {
        $sha256 = @hash_file('sha256', $file);
        $size = @filesize($file);
        if ($sha256 === false || $size === false) {
            throw StoreFailure::writing($file);
        }
        if ($this->has($sha256) && $this->isIntact($sha256, $size)) {
            unlink($file);
            // Found again: a sweep must not take it for forgotten before it is referred to.
            @touch($this->path($sha256));

            return new StoredContent($sha256, $size);
        }
        $this->make(dirname($this->path($sha256)));
        $this->isDurable && $this->sync($file);
        if (! @chmod($file, 0440) || ! @rename($file, $this->path($sha256))) {
            throw StoreFailure::writing($this->path($sha256));
        }

        return new StoredContent($sha256, $size);
    }

    public function has(string $sha256): bool
    {
        return is_file($this->path($sha256));
    }

    public function file(string $sha256): string
    {
        return $this->has($sha256) ? $this->path($sha256) : throw StoreFailure::missing($sha256);
    }

    public function isIntact(string $sha256, int $size): bool
    {
        $path = $this->path($sha256);

        return is_file($path)
            && filesize($path) === $size
            && hash_equals($sha256, (string) @hash_file('sha256', $path));
    }

    public function incoming(): string
    {
        $this->make("$this->directory/incoming");

        return "$this->directory/incoming/".bin2hex(random_bytes(12));
    }

    private function path(string $sha256): string
    {
        if (preg_match('/\A[0-9a-f]{64}\z/', $sha256) !== 1) {
            throw StoreFailure::missing($sha256);
        }

        return "$this->directory/".substr($sha256, 0, 2).'/'.substr($sha256, 2);
    }

    private function make(string $directory): void
    {
        if (! is_dir($directory) && ! @mkdir($directory, 0700, true) && ! is_dir($directory)) {
            throw StoreFailure::writing($directory);
        }
    }

    private function sync(string $file): void
    {
        $stream = fopen($file, 'r+b');
        if ($stream === false || ! fsync($stream)) {
            throw StoreFailure::writing($file);
        }
        fclose($stream);
    }
}
