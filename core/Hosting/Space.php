<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

/** Bytes used and allowed in an account. */
final readonly class Space
{
    public function __construct(
        public int $used,
        public int $limit,
    ) {
    }

    public function left(): int
    {
        return max(0, $this->limit - $this->used);
    }
}
