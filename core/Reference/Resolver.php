<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\StartPages;

/** Says of one reference where it leads, by the names there are. */
final readonly class Resolver
{
    private Names $names;

    /**
     * @param  list<string>  $own  hosts that are the site itself
     * @param  string  $folder  that is the root of the site; "" is the top of the manifest
     */
    public function __construct(Manifest $manifest, private array $own = [], private string $folder = '')
    {
        $this->names = new Names($folder === '' ? $manifest : $manifest->inside($folder));
    }

    /** @param  string  $file  that lies below the root of the site */
    public function resolve(string $file, Document $document, Reference $reference): ResolvedReference
    {
        return $this->folder === ''
            ? $this->fromRoot($file, $document, $reference)
            : $this->fromRoot(substr($file, strlen($this->folder) + 1), $document, $reference)->below($this->folder);
    }

    private function fromRoot(string $file, Document $document, Reference $reference): ResolvedReference
    {
        $address = Address::parse($reference->value, $file, $document->base, $this->own);

        return match ($address->kind) {
            AddressKind::NoPlace => new ResolvedReference,
            AddressKind::Fragment => new ResolvedReference(target: $file, fragment: $address->fragment),
            AddressKind::LocalFile => new ResolvedReference(Fault::LocalFile),
            AddressKind::PrivateHost => new ResolvedReference(Fault::PrivateHost),
            AddressKind::WithLogin => new ResolvedReference(Fault::WithLogin),
            AddressKind::AboveRoot => new ResolvedReference(
                Fault::AboveRoot,
                suggestion: $this->names->nearest((string) $address->path),
            ),
            AddressKind::Elsewhere => new ResolvedReference(
                $address->isPlainHttp && $reference->kind === ReferenceKind::Load ? Fault::PlainHttp : null,
                host: $address->host,
            ),
            AddressKind::Inside => $this->inside($address, $reference),
        };
    }

    private function inside(Address $address, Reference $reference): ResolvedReference
    {
        $path = (string) $address->path;
        $isFile = $this->names->has($path) && ! $this->names->isDirectory($path);
        if (! $isFile && $reference->how === 'module import') {
            $source = $this->forBundler($path);
            if ($source !== null) {
                return new ResolvedReference(target: $source);
            }
        }
        if (! $this->names->has($path)) {
            $other = $this->names->otherwiseWritten($path);

            return $other === null
                ? $this->missing($path)
                : new ResolvedReference(Fault::WrongCase, suggestion: $other);
        }
        if (! $this->names->isDirectory($path)) {
            // "page.html/" is no file to a server.
            return $address->isDirectory
                ? $this->missing($path)
                : new ResolvedReference(target: $path, fragment: $address->fragment);
        }
        $start = $this->startPage($path);

        return $start === null
            ? new ResolvedReference(Fault::Listing)
            : new ResolvedReference(target: $start, fragment: $address->fragment);
    }

    private function missing(string $path): ResolvedReference
    {
        return new ResolvedReference(Fault::Missing, suggestion: $this->names->nearest($path));
    }

    /** A source that is put together before it is served names modules without their ending. */
    private function forBundler(string $path): ?string
    {
        foreach (['.js', '.mjs', '.ts', '/index.js', '/index.ts'] as $ending) {
            if ($this->names->has($path.$ending)) {
                return $path.$ending;
            }
        }

        return null;
    }

    private function startPage(string $directory): ?string
    {
        foreach (StartPages::USUAL as $name) {
            $path = ltrim("$directory/$name", '/');
            if ($this->names->has($path) && ! $this->names->isDirectory($path)) {
                return $path;
            }
        }

        return null;
    }
}
