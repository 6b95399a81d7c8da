<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

final readonly class StoredContent
{
    public function __construct(
        public string $sha256,
        public int $size,
    ) {
    }
}
