<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Moves aside contents that nothing refers to any more, of packages that were refused, of what was let go, and deletes
 * them a week later.
 *
 * However many there are, they are sorted by sort(1) on the disk and compared in one pass, so that memory stays flat.
 * It may run beside anything that puts contents into the store, and be killed at any moment.
 */
final readonly class ContentSweep
{
    /** For so long what was moved aside can come back. */
    public const SECONDS_ASIDE = 7 * 86400;

    /** More than one in so many, or more than MOST, at once is more likely a fault than what was let go of. */
    public const ONE_IN = 10;

    public const MOST = 1000;

    public function __construct(private StoredObjects $objects, private WorkInProgress $work)
    {
    }

    /**
     * @param  iterable<string>  $referenced  SHA-256 in hexadecimal, in any order, repeated or not
     * @param  int  $before  seconds since 1970; what was stored or found again since then stays, as does whatever is
     *     younger than the oldest work in progress
     * @param  int  $now  seconds since 1970
     * @param  bool  $however  many: a person has said that all of it may go
     *
     * @throws StoreFailure nothing is removed when the references could not be listed whole
     * @throws TooMuchToSweep nothing is removed when that many would go at once
     */
    public function sweep(iterable $referenced, int $before, int $now, bool $however = false): SweptContents
    {
        $before = min($before, $this->work->oldest() ?? $before);
        $this->objects->settle();
        $kept = $this->sorted($referenced);
        try {
            [$going, $count, $total] = $this->going($kept, $before);
            if (! $however && ($count > self::MOST || $count * self::ONE_IN > $total)) {
                throw new TooMuchToSweep($count, $total);
            }
            [$back, $deleted, $freed] = $this->clearAside($kept, $now - self::SECONDS_ASIDE);
            $files = 0;
            $bytes = 0;
            while (($name = self::line($going)) !== null) {
                $moved = $this->objects->moveAside($name, $before);
                $files += $moved === null ? 0 : 1;
                $bytes += $moved ?? 0;
            }
        } finally {
            fclose($kept);
            isset($going) && fclose($going);
        }

        return new SweptContents($files, $bytes, $back, $deleted, $freed);
    }

    /**
     * Deletes what lies aside without waiting for its week to be over.
     *
     * @param  iterable<string>  $referenced  as sweep() takes them: what something refers to comes back instead
     *
     * @throws StoreFailure
     */
    public function emptyAside(iterable $referenced): SweptContents
    {
        $this->objects->settle();
        $kept = $this->sorted($referenced);
        try {
            [$back, $deleted, $freed] = $this->clearAside($kept, PHP_INT_MAX);
        } finally {
            fclose($kept);
        }

        return new SweptContents(0, 0, $back, $deleted, $freed);
    }

    /**
     * @param  resource  $kept  sorted
     * @return array{resource, int, int} names of what goes, one a line; how many; of how many
     */
    private function going($kept, int $before): array
    {
        $going = tmpfile();
        $going === false && throw StoreFailure::writing('a list of what is to go');
        $count = 0;
        $total = 0;
        foreach ($this->without($kept, $this->objects->sizes(), $total) as $sha256 => $size) {
            if ($this->objects->isUntouched($sha256, $before)) {
                fwrite($going, "$sha256\n") === 65 || throw StoreFailure::writing('a list of what is to go');
                $count++;
            }
        }
        rewind($going);

        return [$going, $count, $total];
    }

    /**
     * @param  resource  $kept  sorted
     * @param  int  $before  seconds since 1970
     * @return array{int, int, int} how many came back, how many were deleted, bytes freed
     */
    private function clearAside($kept, int $before): array
    {
        rewind($kept);
        $unreferenced = [];
        foreach ($this->without($kept, $this->objects->inAside()) as $sha256 => $content) {
            $unreferenced[$sha256] = true;
        }
        $back = 0;
        $deleted = 0;
        $freed = 0;
        foreach ($this->objects->inAside() as $sha256 => $content) {
            if (! isset($unreferenced[$sha256])) {
                $isBack = $this->objects->refresh($sha256);
                $back += (int) $isBack;
                $isBack && $this->objects->deleteAside($sha256); // A second copy, where there was one.
            } elseif ($content->movedAt < $before) {
                $freed += $this->objects->deleteAside($sha256);
                $deleted++;
            }
        }

        return [$back, $deleted, $freed];
    }

    /**
     * @param  iterable<string>  $going  what is let go of refers to, as sweep() takes it
     * @param  iterable<string>  $staying  all else refers to
     * @return int sealed bytes of what nothing would refer to any more
     *
     * @throws StoreFailure when either could not be listed whole, or the store does not answer
     */
    public function freedWithout(iterable $going, iterable $staying): int
    {
        $gone = $this->sorted($going);
        $kept = $this->sorted($staying);
        $bytes = 0;
        $next = self::line($gone);
        foreach ($this->without($kept, $this->objects->sizes()) as $sha256 => $size) {
            while ($next !== null && strcmp($next, $sha256) < 0) {
                $next = self::line($gone);
            }
            $bytes += $next === $sha256 ? $size : 0;
        }
        fclose($gone);
        fclose($kept);

        return $bytes;
    }

    /**
     * @param  iterable<string>  $referenced  as sweep() takes them
     * @return \Generator<string> those that are neither in their places nor aside
     *
     * @throws StoreFailure when the references could not be listed whole, or the store does not answer
     */
    public function missing(iterable $referenced): \Generator
    {
        $kept = $this->sorted($referenced);
        try {
            $next = self::line($kept);
            foreach ($this->objects->sizes() as $sha256 => $size) {
                for (; $next !== null && strcmp($next, $sha256) < 0; $next = self::line($kept)) {
                    $this->objects->has($next) || yield $next;
                }
                $next = $next === $sha256 ? self::line($kept) : $next;
            }
            for (; $next !== null; $next = self::line($kept)) {
                $this->objects->has($next) || yield $next;
            }
        } finally {
            fclose($kept);
        }
    }

    /**
     * @template T
     *
     * @param  resource  $kept  names, sorted
     * @param  iterable<string, T>  $all  by names, sorted
     * @param  int  $total  how many there were of them, afterwards
     * @return \Generator<string, T>
     */
    private function without($kept, iterable $all, int &$total = 0): \Generator
    {
        $next = self::line($kept);
        foreach ($all as $sha256 => $one) {
            $total++;
            while ($next !== null && strcmp($next, $sha256) < 0) {
                $next = self::line($kept);
            }
            if ($next !== $sha256) {
                yield $sha256 => $one;
            }
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
