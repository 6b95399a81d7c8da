<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Removes contents that nothing refers to any more: of packages that were refused, of what was let go.
 *
 * However many there are, they are sorted by sort(1) on the disk and compared in one pass, so that memory stays flat.
 */
final readonly class ContentSweep
{
    /** @param  string  $directory  of the FileContentStore */
    public function __construct(private string $directory)
    {
    }

    /**
     * @param  iterable<string>  $referenced  SHA-256 in hexadecimal, in any order, repeated or not
     * @param  int  $before  seconds since 1970; what was stored or found again since then stays: it may be on its
     *     way in
     * @return array{int, int} files and bytes that were removed
     *
     * @throws StoreFailure nothing is removed when the references could not be listed whole
     */
    public function remove(iterable $referenced, int $before): array
    {
        $kept = $this->sorted($referenced);
        $files = 0;
        $bytes = 0;
        try {
            $next = self::line($kept);
            foreach ($this->stored() as $sha256 => $file) {
                while ($next !== null && strcmp($next, $sha256) < 0) {
                    $next = self::line($kept);
                }
                $size = (int) @filesize($file);
                if ($next !== $sha256 && (int) @filemtime($file) < $before && @unlink($file)) {
                    $files++;
                    $bytes += $size;
                }
            }
        } finally {
            fclose($kept);
        }

        return [$files, $bytes];
    }

    /**
     * @param  iterable<string>  $referenced
     * @return resource one a line, sorted by bytes, each once
     */
    private function sorted(iterable $referenced)
    {
        $sorted = tmpfile();
        $process = $sorted === false
            ? false
            : proc_open(
                ['sort', '-u'],
                [['pipe', 'r'], $sorted],
                $pipes,
                null,
                [
                    'LC_ALL' => 'C',
                    'PATH' => (string) getenv('PATH'),
                ],
            );
        if ($sorted === false || $process === false) {
            throw StoreFailure::writing('a list of what is in use');
        }
        $whole = true;
        foreach ($referenced as $sha256) {
            $whole = $whole && fwrite($pipes[0], "$sha256\n") === 65;
        }
        fclose($pipes[0]);
        if (proc_close($process) !== 0 || ! $whole) {
            throw StoreFailure::writing('a list of what is in use');
        }
        rewind($sorted);

        return $sorted;
    }

    /** @return \Generator<string, string> files by their hash, sorted */
    private function stored(): \Generator
    {
        foreach (glob("$this->directory/[0-9a-f][0-9a-f]", GLOB_ONLYDIR) ?: [] as $directory) {
            foreach (scandir($directory) ?: [] as $name) {
                $sha256 = basename($directory).$name;
                if (preg_match('/\A[0-9a-f]{64}\z/', $sha256) === 1) {
                    yield $sha256 => "$directory/$name";
                }
            }
        }
    }

    /** @param  resource  $stream */
    private static function line($stream): ?string
    {
        $line = fgets($stream);

        return $line === false ? null : rtrim($line, "\n");
    }
}
