<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** A reference that does not lead where it says. */
final readonly class BrokenReference
{
    /**
     * @param  string  $file  in which it stands
     * @param  int  $line  from 1
     * @param  string|null  $suggestion  the path it may have meant
     */
    public function __construct(
        public Fault $fault,
        public string $file,
        public int $line,
        public Reference $reference,
        public ?string $suggestion = null,
    ) {
    }
}
