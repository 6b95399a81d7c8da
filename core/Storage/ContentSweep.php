<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Removes contents that nothing refers to any more: of packages that were refused, of what was let go.
 *
 * However many there are, they are sorted by sort(1) on the disk and compared in one pass, so that memory stays flat.
 * It may run beside anything that puts contents into the store, and be killed at any moment.
 */
final readonly class ContentSweep
{
    public function __construct(private StoredObjects $objects, private WorkInProgress $work)
    {
    }

    /**
     * @param  iterable<string>  $referenced  SHA-256 in hexadecimal, in any order, repeated or not
     * @param  int  $before  seconds since 1970; what was stored or found again since then stays, as does whatever is
     *     younger than the oldest work in progress
     * @return array{int, int} files and bytes that were removed
     *
     * @throws StoreFailure nothing is removed when the references could not be listed whole
     */
    public function remove(iterable $referenced, int $before): array
    {
        $before = min($before, $this->work->oldest() ?? $before);
        $this->objects->settle();
        $files = 0;
        $bytes = 0;
        foreach ($this->unreferenced($referenced) as $sha256 => $size) {
            $freed = $this->objects->remove($sha256, $before);
            $files += $freed === null ? 0 : 1;
            $bytes += $freed ?? 0;
        }

        return [$files, $bytes];
    }

    /**
     * @param  iterable<string>  $referenced  as remove() takes them
     * @return \Generator<string, int> sealed sizes by hash of what nothing refers to
     *
     * @throws StoreFailure before the first, when the references could not be listed whole
     */
    public function unreferenced(iterable $referenced): \Generator
    {
        $kept = $this->sorted($referenced);
        try {
            $next = self::line($kept);
            foreach ($this->objects->sizes() as $sha256 => $size) {
                while ($next !== null && strcmp($next, $sha256) < 0) {
                    $next = self::line($kept);
                }
                if ($next !== $sha256) {
                    yield $sha256 => $size;
                }
            }
        } finally {
            fclose($kept);
        }
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

    /** @param  resource  $stream */
    private static function line($stream): ?string
    {
        $line = fgets($stream);

        return $line === false ? null : rtrim($line, "\n");
    }
}
