<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\WireName;

/** The addresses that what a run changed is seen at. */
final readonly class LiveAddresses
{
    /** @var list<string> paths of the run that the server shows at the top, the first that is there */
    public array $startPages;

    /**
     * @param  list<string>  $names  of start pages, the site's precedence
     * @param  list<string>  $also  addresses that must answer besides those of files
     * @param  list<string>  $secluded  paths of the run that are not meant for visitors, beside hidden ones
     */
    public function __construct(
        private PublicAddress $addresses,
        private RunPlace $place,
        private array $names,
        public array $also = [],
        private array $secluded = [],
    ) {
        $this->startPages = $place->allInRun($names);
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

    /** Null for what is not meant for visitors, and for what lies where they do not come. */
    public function ofFile(ManifestEntry $file): ?string
    {
        return $this->isSecluded($file->path) ? null : $this->addresses->of($this->place->root->join($file->path));
    }

    /** The address of what is not meant for visitors; null for everything else. */
    public function ofSecluded(ManifestEntry $file): ?string
    {
        return $this->isSecluded($file->path) ? $this->addresses->of($this->place->root->join($file->path)) : null;
    }

    /** @param  RelativePath|null  $directory  null where the run begins */
    public function ofDirectory(?RelativePath $directory): ?string
    {
        $address = $this->addresses->of(
            $directory === null ? $this->place->root : $this->place->root->join($directory),
        );

        return $address === null ? null : rtrim($address, '/').'/';
    }

    public function startPageIn(?RelativePath $directory, Manifest $manifest): ?ManifestEntry
    {
        return $manifest->startPage($this->names, (string) $directory);
    }

    public function isStartPage(RelativePath $file): bool
    {
        return in_array($file->name(), $this->names, true);
    }

    /**
     * An address by what stands behind the one visitors come in at; null where they cannot come in.
     *
     * @param  string  $path  decoded, with a slash at the end of a directory
     * @param  bool  $isFromTop  whether it stands behind the name of the domain instead
     */
    public function below(string $path, bool $isFromTop): ?string
    {
        $start = $this->start();
        $top = $isFromTop && $start !== null ? preg_replace('~\A(https?://[^/]+/).*~', '$1', $start) : $start;

        return $top === null ? null : $top.implode('/', array_map(
            static fn (string $name): string => rawurlencode(WireName::toWire($name)),
            explode('/', $path),
        ));
    }

    /** Hidden, but for what is hidden to be found (RFC 8615), or said so. */
    private function isSecluded(RelativePath $path): bool
    {
        foreach ($path->segments() as $name) {
            if ($name[0] === '.' && $name !== '.well-known') {
                return true;
            }
        }

        return in_array($path->toString(), $this->secluded, true);
    }
}
