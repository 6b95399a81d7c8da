<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PublicAddress;

/** The addresses that what a run changed is seen at. */
final readonly class LiveAddresses
{
    /** @var list<string> paths of the run that the server shows at the top, the first that is there */
    public array $startPages;

    /**
     * @param  list<string>  $startPages  the site's precedence
     * @param  list<string>  $also  addresses that must answer besides those of files
     */
    public function __construct(
        private PublicAddress $addresses,
        private RunPlace $place,
        array $startPages,
        public array $also = [],
    ) {
        $this->startPages = $place->allInRun($startPages);
    }

    /** Null where visitors cannot come in at all. */
    public function start(): ?string
    {
        $address = $this->addresses->of($this->place->served);

        return $address === null ? null : rtrim($address, '/').'/';
    }

    /** The directory of the run that visitors come in at; null where it is the top. */
    public function public(): ?string
    {
        return $this->place->public?->toString();
    }

    public function startPage(Manifest $manifest): ?ManifestEntry
    {
        return $manifest->startPage($this->startPages);
    }

    /** Null for what servers keep to themselves, and for what lies where visitors do not come. */
    public function ofFile(ManifestEntry $file): ?string
    {
        return str_starts_with($file->path->name(), '.')
            ? null
            : $this->addresses->of($this->place->root->join($file->path));
    }
}
