<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** The journal of one run, written as it goes; a run that was killed is taken up from it. */
interface Journal
{
    /** @param  string  $subject a path, a backup's name, or a stage */
    public function note(JournalMark $mark, string $subject = ''): void;

    /** @return array<string, true> subjects noted under a mark */
    public function noted(JournalMark $mark): array;

    public function has(JournalMark $mark): bool;

    /**
     * Keeps a larger text beside the notes, complete or not at all.
     *
     * @param  string|iterable<string>  $text  whole, or in pieces
     */
    public function keep(string $name, string|iterable $text): void;

    public function kept(string $name): ?string;

    /** @return resource|null what is kept under a name, for reading parts of it */
    public function open(string $name);
}
