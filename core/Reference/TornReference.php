<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** A reference that leads nowhere, or elsewhere, once files have moved. */
final readonly class TornReference
{
    /**
     * @param  string  $page  that holds it, below the root of the site, as it is called now
     * @param  int  $line  from 1
     * @param  string  $raw  as it is written
     * @param  string  $target  the file it leads to now
     * @param  string|null  $written  what would lead there afterwards; null where that file goes, or where it cannot be
     *     said in this place
     */
    public function __construct(
        public string $page,
        public int $line,
        public string $raw,
        public string $target,
        public ?string $written,
    ) {
    }
}
