<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/**
 * An absolute path on a server, as the login that uses it sees it: "/" or "/www/site.example".
 *
 * Always normalised, valid UTF-8, without ".." and control characters, no trailing slash. Containment goes by
 * segment: "/home/b" does not contain "/home/bX".
 */
final readonly class RemotePath implements \Stringable
{
    /** @param  list<string>  $segments */
    private function __construct(private array $segments)
    {
    }

    /** @throws PathRefused */
    public static function fromString(string $path): self
    {
        $parsed = self::parse($path);

        return $parsed instanceof self ? $parsed : throw PathRefused::because($path, $parsed);
    }

    public static function tryFromString(string $path): ?self
    {
        $parsed = self::parse($path);

        return $parsed instanceof self ? $parsed : null;
    }

    public static function root(): self
    {
        return new self([]);
    }

    private static function parse(string $path): self|PathFault
    {
        if ($path === '') {
            return PathFault::Empty;
        }
        if (! str_starts_with($path, '/')) {
            return PathFault::NotAbsolute;
        }
        $segments = Segments::parse($path);

        return $segments instanceof PathFault ? $segments : new self($segments);
    }

    public function join(RelativePath $below): self
    {
        return new self([...$this->segments, ...$below->segments()]);
    }

    /** @throws PathRefused when the name is none, or holds a slash */
    public function child(string $name): self
    {
        return $this->join(RelativePath::fromString($name));
    }

    /** The directory above; "/" is above itself. */
    public function parent(): self
    {
        return new self(array_slice($this->segments, 0, -1));
    }

    /** The last name, "" for "/". */
    public function name(): string
    {
        return $this->segments === [] ? '' : $this->segments[count($this->segments) - 1];
    }

    public function depth(): int
    {
        return count($this->segments);
    }

    public function contains(self $other): bool
    {
        return Segments::startWith($other->segments, $this->segments);
    }

    public function equals(self $other): bool
    {
        return $this->segments === $other->segments;
    }

    /** What of the other path lies below this one; null when it is this one or lies elsewhere. */
    public function toward(self $other): ?RelativePath
    {
        return $this->contains($other) && ! $this->equals($other)
            ? RelativePath::fromString(implode('/', array_slice($other->segments, count($this->segments))))
            : null;
    }

    /** The same place as a login jailed in the given directory sees it; null when it cannot. */
    public function seenFrom(self $jail): ?self
    {
        return $jail->contains($this) ? new self(array_slice($this->segments, count($jail->segments))) : null;
    }

    /**
     * Where a link that lies in this directory points; null when it is no path, or there are no names left to go up.
     *
     * @param  string  $target  as the link has it, from this directory or from "/"
     */
    public function pointedAt(string $target): ?self
    {
        $segments = str_starts_with($target, '/') ? [] : $this->segments;
        foreach (explode('/', $target) as $segment) {
            if ($segment === '..' && array_pop($segments) === null) {
                return null;
            }
            if ($segment !== '..') {
                $segments[] = $segment;
            }
        }

        return self::tryFromString('/'.implode('/', $segments));
    }

    public function toString(): string
    {
        return '/'.implode('/', $this->segments);
    }

    public function __toString(): string
    {
        return $this->toString();
    }
}
