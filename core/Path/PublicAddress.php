<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/** From a place below a document root to the address visitors use; each segment percent-encoded (RFC 3986). */
final readonly class PublicAddress
{
    /** @param  string  $base "https://site.example" or "http://site.example:8090", without a login in it */
    public function __construct(
        private string $base,
        private RemotePath $documentRoot,
    ) {
        if (preg_match('#\Ahttps?://[^/@\s]+/?\z#', $base) !== 1) {
            throw new \InvalidArgumentException("$base is not the base address of a site");
        }
    }

    /** Null when visitors cannot reach the place through this site. */
    public function of(RemotePath $place): ?string
    {
        if ($place->equals($this->documentRoot)) {
            return rtrim($this->base, '/').'/';
        }
        $below = $this->documentRoot->toward($place);

        return $below === null ? null : $this->ofFile($below);
    }

    public function ofFile(RelativePath $file): string
    {
        return rtrim($this->base, '/').'/'.implode('/', array_map(rawurlencode(...), $file->segments()));
    }
}
