<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** Files that a search has found so far; what could not be looked at is told, and is never taken for nothing. */
final class FileMatches
{
    /** So many are shown; who finds more looks for something narrower. */
    public const MOST = 1000;

    /** @var list<FoundFile> as they came */
    public array $found = [];

    public int $directories = 0;

    /** Names that were looked at. */
    public int $names = 0;

    /** Files that were read for their text. */
    public int $read = 0;

    /** Files that are larger than was to be read. */
    public int $tooLarge = 0;

    /** @var list<array{string, string}> path and reason of what could not be looked at */
    public array $unread = [];

    /** Whether there would be more. */
    public bool $isCut = false;

    public function add(FoundFile $found): void
    {
        count($this->found) < self::MOST ? $this->found[] = $found : $this->isCut = true;
    }
}
