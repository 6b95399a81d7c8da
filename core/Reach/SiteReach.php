<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/** What one login can touch of one site. */
final readonly class SiteReach
{
    /** @param  RelativePath|null  $part the part below the document root, where it is only a part */
    private function __construct(
        public string $domain,
        public Extent $extent,
        public ?RelativePath $part = null,
    ) {
    }

    public static function of(RemotePath $directory, string $domain, RemotePath $documentRoot): self
    {
        return match (true) {
            $directory->contains($documentRoot) => new self($domain, Extent::Whole),
            $documentRoot->contains($directory) => new self($domain, Extent::Part, $documentRoot->toward($directory)),
            default => new self($domain, Extent::None),
        };
    }
}
