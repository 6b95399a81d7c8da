<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Compare;

/** A line of two texts, side by side. */
final readonly class DifferenceRow
{
    /**
     * @param  int|null  $beforeLine  from 1; null where the line was added
     * @param  int|null  $afterLine  from 1; null where it is gone
     * @param  bool  $isChanged  whether the two sides differ
     */
    public function __construct(
        public ?int $beforeLine,
        public string $before,
        public ?int $afterLine,
        public string $after,
        public bool $isChanged,
    ) {
    }
}
