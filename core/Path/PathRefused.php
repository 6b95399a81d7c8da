<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

use InvalidArgumentException;

final class PathRefused extends InvalidArgumentException
{
    private function __construct(
        public readonly string $path,
        public readonly PathFault $fault,
    ) {
        parent::__construct(mb_scrub($path).': '.$fault->sentence());
    }

    public static function because(string $path, PathFault $fault): self
    {
        return new self($path, $fault);
    }
}
