<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Contents\Leftovers;
use Cellarium\Core\Package\Contents\UploadPlace;
use Cellarium\Core\Path\RelativePath;

/**
 * A folder that is all that comes, holds a start page and is new to the server: whether it is meant, or only what lies
 * in it, is for a person to say.
 */
final readonly class UploadFolder
{
    /** @param  string  $path  from where the site begins */
    private function __construct(public string $path)
    {
    }

    /**
     * @param  Manifest  $brought  paths from where the site begins
     * @param  string  $into  the directory it comes into; "" is the top
     * @param  list<string>  $startPages  of the site
     * @return self|null null where nothing has to be asked
     */
    public static function fromManifest(Manifest $brought, UploadPlace $place, string $into, array $startPages): ?self
    {
        $depth = $into === '' ? 0 : RelativePath::fromString($into)->depth();
        $tops = [];
        foreach ($brought->files() as $file) {
            if (Leftovers::within($file->path) !== null) {
                continue;
            }
            $segments = $file->path->segments();
            $tops[$segments[$depth]] = count($segments) > $depth + 1;
        }
        $name = (string) array_key_first($tops);
        $path = ltrim("$into/$name", '/');
        $isAsked = $tops === [$name => true]
            && $place->isServed(RelativePath::fromString($path))
            && $place->server->get($path) === null
            && $brought->startPage(array_values(array_unique([...$startPages, ...StartPages::USUAL])), $path) !== null;

        return $isAsked ? new self($path) : null;
    }

    /** What lies in it, one directory further up. */
    public function lifted(Manifest $brought): Manifest
    {
        $above = RelativePath::fromString($this->path)->parent();
        $prefix = $above === null ? '' : "$above/";
        $entries = [];
        foreach ($brought->all() as $entry) {
            $path = "$entry->path";
            if ($path === $this->path) {
                continue;
            }
            $entries[] = str_starts_with($path, "$this->path/")
                ? $entry->at(RelativePath::fromString($prefix.substr($path, strlen($this->path) + 1)))
                : $entry;
        }

        return Manifest::fromEntries($entries);
    }

    public static function named(string $path): self
    {
        return new self($path);
    }
}
