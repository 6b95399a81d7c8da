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
    /** @param  non-empty-list<string>  $segments */
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
        $segments = Segments::of($path);
        if ($segments instanceof PathFault) {
            return $segments;
        }

        return $segments === [] ? PathFault::Empty : new self($segments);
    }

    /** @return non-empty-list<string> */
    public function segments(): array
    {
        return $this->segments;
    }

    public function name(): string
    {
        return $this->segments[count($this->segments) - 1];
    }

    public function extension(): string
    {
        return strtolower(pathinfo($this->name(), PATHINFO_EXTENSION));
    }

    public function depth(): int
    {
        return count($this->segments);
    }

    public function parent(): ?self
    {
        $above = array_slice($this->segments, 0, -1);

        return $above === [] ? null : new self($above);
    }

    /** @return list<self> every directory above, outermost first */
    public function ancestors(): array
    {
        $paths = [];
        for ($length = 1; $length < count($this->segments); $length++) {
            $paths[] = new self(array_slice($this->segments, 0, $length));
        }

        return $paths;
    }

    /** The same file under another name in its directory. */
    public function renamed(string $name): self
    {
        return self::fromString(implode('/', [...array_slice($this->segments, 0, -1), $name]));
    }

    public function isBelow(self $directory): bool
    {
        return count($this->segments) > count($directory->segments)
            && Segments::startWith($this->segments, $directory->segments);
    }

    /** What of this path lies below a directory; null when it is that directory or lies elsewhere. */
    public function below(self $directory): ?self
    {
        $below = $this->isBelow($directory) ? array_slice($this->segments, count($directory->segments)) : [];

        return $below === [] ? null : new self($below);
    }

    public function toString(): string
    {
        return implode('/', $this->segments);
    }

    public function __toString(): string
    {
        return $this->toString();
    }
}
