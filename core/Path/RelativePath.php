<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/**
 * A path below some directory: "img/stone.svg". Never empty, never absolute, without "..", valid UTF-8.
 *
 * Backslashes and drive letters are refused: a server would take them as part of a name, another system as a way out.
 */
final readonly class RelativePath implements \Stringable
{
    /** @param  string  $path  normalised; one string and no list of names, since there are many of these */
    private function __construct(private string $path)
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

    private static function parse(string $path): self|PathFault
    {
        if (
            str_starts_with($path, '/')
            || str_starts_with($path, '\\')
            || preg_match('/\A[A-Za-z]:[\/\\\\]/', $path) === 1
        ) {
            return PathFault::Absolute;
        }
        if (preg_match('#(\A|[\\\\/])\.\.([\\\\/]|\z)#', $path) === 1) {
            return PathFault::Leaves;
        }
        $segments = Segments::parse($path);
        if ($segments instanceof PathFault) {
            return $segments;
        }

        return $segments === [] ? PathFault::Empty : new self(implode('/', $segments));
    }

    /** @return non-empty-list<string> */
    public function segments(): array
    {
        return explode('/', $this->path);
    }

    public function name(): string
    {
        $slash = strrpos($this->path, '/');

        return $slash === false ? $this->path : substr($this->path, $slash + 1);
    }

    public function extension(): string
    {
        return strtolower(pathinfo($this->name(), PATHINFO_EXTENSION));
    }

    public function depth(): int
    {
        return substr_count($this->path, '/') + 1;
    }

    public function parent(): ?self
    {
        $slash = (int) strrpos($this->path, '/');

        return $slash === 0 ? null : new self(substr($this->path, 0, $slash));
    }

    /** @return list<self> every directory above, outermost first */
    public function ancestors(): array
    {
        $paths = [];
        for ($slash = 0; ($slash = (int) strpos($this->path, '/', $slash)) > 0; $slash++) {
            $paths[] = new self(substr($this->path, 0, $slash));
        }

        return $paths;
    }

    /** The same file under another name in its directory. */
    public function renamed(string $name): self
    {
        $parent = $this->parent();

        return self::fromString($parent === null ? $name : "$parent->path/$name");
    }

    public function isBelow(self $directory): bool
    {
        return str_starts_with($this->path, "$directory->path/");
    }

    /** What of this path lies below a directory; null when it is that directory or lies elsewhere. */
    public function below(self $directory): ?self
    {
        return $this->isBelow($directory) ? new self(substr($this->path, strlen($directory->path) + 1)) : null;
    }

    public function toString(): string
    {
        return $this->path;
    }

    public function __toString(): string
    {
        return $this->path;
    }
}
