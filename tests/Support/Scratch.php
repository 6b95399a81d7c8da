<?php

declare(strict_types=1);

namespace Tests\Support;

/** Directories for one test, gone when it ends. */
trait Scratch
{
    /** @var list<string> */
    private array $scratch = [];

    protected function directory(): string
    {
        $directory = ScratchDisk::path().'/cellarium-'.bin2hex(random_bytes(6));
        mkdir($directory);

        return $this->scratch[] = $directory;
    }

    protected function tearDown(): void
    {
        foreach ($this->scratch as $directory) {
            self::remove($directory);
        }
        parent::tearDown();
    }

    private static function remove(string $path): void
    {
        if (is_link($path) || (file_exists($path) && ! is_dir($path))) {
            unlink($path);
        } elseif (is_dir($path)) {
            chmod($path, 0700);
            foreach (array_diff((array) scandir($path), ['.', '..']) as $name) {
                self::remove("$path/$name");
            }
            rmdir($path);
        }
    }

    /** @return array<string, string> SHA-256 of each file by its path, directories with a slash behind */
    protected static function contents(string $directory, string $below = ''): array
    {
        clearstatcache();
        $found = [];
        foreach (array_diff((array) scandir($directory.$below), ['.', '..']) as $name) {
            $path = "$below/$name";
            $found += is_dir($directory.$path)
                ? ["$path/" => ''] + self::contents($directory, $path)
                : [$path => (string) hash_file('sha256', $directory.$path)];
        }
        ksort($found);

        return $found;
    }
}
