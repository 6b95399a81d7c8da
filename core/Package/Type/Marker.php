<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Path\PathPattern;

/** A sign by which a kind of package is known. */
final readonly class Marker
{
    /**
     * @param  PathPattern  $file  that is there
     * @param  int  $weight  how much it says, from 1 to 10; below zero where it speaks against the type
     * @param  string|null  $holds  a regular expression that its text fits
     * @param  string  $says  what that means, for people
     */
    public function __construct(
        public PathPattern $file,
        public int $weight,
        public ?string $holds,
        public string $says,
    ) {
    }
}
