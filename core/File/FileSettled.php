<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\ManifestEntry;

/** The outcome of a step that was broken off, found by looking. */
final readonly class FileSettled
{
    /** @param  ManifestEntry|null  $now  what lies there, or where it went */
    public function __construct(public FileOutcome $outcome, public ?ManifestEntry $now)
    {
    }
}
