<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** A line of one of several texts that are laid beside each other. */
final readonly class SideLine
{
    public function __construct(public string $text, public SideMark $mark)
    {
    }
}
