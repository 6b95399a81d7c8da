<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/**
 * The map between directories and the addresses visitors use, both ways; segments percent-encoded (RFC 3986).
 *
 * Directories from elsewhere may be mounted below the site, as an app in a subfolder; what lies in the document root
 * under the same name is then hidden by it.
 */
final readonly class PublicAddress
{
    private string $base;

    /** @var list<array{RelativePath|null, RemotePath}> address below the base and its directory, the longest first */
    private array $places;

    /**
     * @param  string  $base  "https://site.example" or "http://site.example:8090", without a login in it
     * @param  array<string, RemotePath>  $mounts  directories by where they answer, "/blog"
     * @param  list<string>  $aliases  other names that lead to the same site
     *
     * @throws \InvalidArgumentException for the base
     * @throws PathRefused for a mount
     */
    public function __construct(
        string $base,
        RemotePath $documentRoot,
        array $mounts = [],
        private array $aliases = [],
    ) {
        if (preg_match('#\Ahttps?://[^/@\s?\#]+/?\z#', $base) !== 1) {
            throw new \InvalidArgumentException(
                'this is not the base address of a site: scheme and name, without login and path',
            );
        }
        $this->base = rtrim($base, '/');
        $places = [];
        foreach ($mounts as $path => $directory) {
            $places[] = [RelativePath::fromString(trim($path, '/')), $directory];
        }
        usort($places, static fn (array $a, array $b): int => $b[0]->depth() <=> $a[0]->depth());
        $this->places = [...$places, [null, $documentRoot]];
    }

    /** Null when visitors cannot reach the place through this site. */
    public function of(RemotePath $place): ?string
    {
        $best = null;
        foreach ($this->places as [$path, $directory]) {
            $below = $place->equals($directory) ? null : $directory->toward($place);
            if ($below === null && ! $place->equals($directory)) {
                continue;
            }
            $segments = [...$path?->segments() ?? [], ...$below?->segments() ?? []];
            $seen = $segments === [] ? null : RelativePath::fromString(implode('/', $segments));
            // Where two lead to it, the shorter address is what people use; one hidden by a mount leads elsewhere.
            if ($this->serves($seen)->equals($place) && ($best === null || count($segments) < count($best))) {
                $best = $segments;
            }
        }

        return $best === null ? null : "$this->base/".self::encoded($best);
    }

    public function ofFile(RelativePath $file): string
    {
        return "$this->base/".self::encoded($file->segments());
    }

    /** @param  list<string>  $segments */
    private static function encoded(array $segments): string
    {
        return implode(
            '/',
            array_map(static fn (string $name): string => rawurlencode(WireName::toWire($name)), $segments),
        );
    }

    /**
     * The place an address leads to; query, fragment and a login in it are left out of account.
     *
     * @throws PathRefused when it leaves the site, or is no path
     */
    public function placeOf(string $address): ?RemotePath
    {
        if (preg_match('#\A(?:https?:)?//(?:[^/@]*@)?([^/?\#:]+)(?::\d+)?([^?\#]*)#i', $address, $match) !== 1) {
            return null;
        }
        $host = strtolower($match[1]);
        if (
            $host !== strtolower((string) parse_url($this->base, PHP_URL_HOST))
            && ! in_array($host, array_map(strtolower(...), $this->aliases), true)
        ) {
            return null;
        }
        $path = trim($match[2], '/');
        $segments = array_map(rawurldecode(...), explode('/', $path));
        foreach ($segments as $segment) {
            if (preg_match('#[/\x00]#', $segment) === 1) {
                throw PathRefused::because($address, PathFault::Leaves); // An encoded slash is no name in a directory.
            }
        }
        $segments = array_map(
            static fn (string $name): string => preg_match('/\A[^\x80-\xff]*\z/', $name) === 1
                ? $name
                : WireName::fromWire($name),
            $segments,
        );

        return $this->serves($path === '' ? null : RelativePath::fromString(implode('/', $segments)));
    }

    private function serves(?RelativePath $path): RemotePath
    {
        foreach ($this->places as [$mount, $directory]) {
            if ($mount === null) {
                break;
            }
            if ($path !== null && Segments::startWith($path->segments(), $mount->segments())) {
                $rest = array_slice($path->segments(), $mount->depth());

                return $rest === [] ? $directory : $directory->join(RelativePath::fromString(implode('/', $rest)));
            }
        }
        $root = $this->places[count($this->places) - 1][1];

        return $path === null ? $root : $root->join($path);
    }
}
