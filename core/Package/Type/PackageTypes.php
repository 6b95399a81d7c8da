<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PathPattern;
use Closure;

/** All kinds of packages there are rules for. */
final readonly class PackageTypes
{
    /** Of a file that is looked into for a sign; in bytes. */
    private const READ = 64_000;

    /** Files that are looked into for one sign. */
    private const MOST_READ = 20;

    /** @var array<string, PackageType> by id */
    private array $types;

    /** @param  iterable<PackageType>  $types */
    public function __construct(iterable $types)
    {
        $byId = [];
        foreach ($types as $type) {
            $byId[$type->id] = $type;
        }
        $this->types = $byId;
    }

    public function get(string $id): ?PackageType
    {
        return $this->types[$id] ?? null;
    }

    /** Whether it is an installed system or a part of one: the same files are many sites' then. */
    public function isOfSystem(string $id): bool
    {
        $isNamed = array_filter($this->types, static fn (PackageType $type): bool => $type->system === $id) !== [];

        return $isNamed || $this->get($id)?->system !== null;
    }

    /** @return list<PackageType> */
    public function all(): array
    {
        return array_values($this->types);
    }

    /**
     * The same where somebody has said what it is.
     *
     * @param  Closure(ManifestEntry, int<1, max>): string  $read
     */
    public function said(PackageType $type, Manifest $manifest, Closure $read): Recognition
    {
        return new Recognition(
            $type,
            [...self::weigh($type, $manifest, $read)[1], 'somebody here said so'],
            [],
            self::read($type->version, $manifest, $read),
            self::read($type->name, $manifest, $read),
        );
    }

    /** @param  Closure(ManifestEntry, int<1, max>): string  $read  so many bytes from the beginning of a file */
    public function recognise(Manifest $manifest, Closure $read): Recognition
    {
        $best = [];
        $most = 0;
        foreach ($this->types as $type) {
            [$weight, $evidence] = self::weigh($type, $manifest, $read);
            if ($weight >= $type->threshold && $weight >= $most) {
                $best = $weight > $most ? [] : $best;
                $best[] = [$type, $evidence];
                $most = $weight;
            }
        }
        if (count($best) !== 1) {
            return new Recognition(null, [], array_column($best, 0), null, null);
        }
        [$type, $evidence] = $best[0];

        return new Recognition(
            $type,
            $evidence,
            [],
            self::read($type->version, $manifest, $read),
            self::read($type->name, $manifest, $read),
        );
    }

    /**
     * @param  Closure(ManifestEntry, int<1, max>): string  $read
     * @return array{int, list<string>} how much speaks for it, and what does
     */
    private static function weigh(PackageType $type, Manifest $manifest, Closure $read): array
    {
        $weight = 0;
        $evidence = [];
        foreach ($type->markers as $marker) {
            if (self::isThere($marker, $manifest, $read)) {
                $weight += $marker->weight;
                $marker->weight > 0 && $evidence[] = $marker->says;
            }
        }

        return [$weight, array_values(array_unique($evidence))];
    }

    /** @param  Closure(ManifestEntry, int<1, max>): string  $read */
    private static function isThere(Marker $marker, Manifest $manifest, Closure $read): bool
    {
        $looked = 0;
        foreach (self::files($marker->file, $manifest) as $file) {
            if ($marker->holds === null || Expression::finds($marker->holds, mb_scrub($read($file, self::READ)))) {
                return true;
            }
            if (++$looked >= self::MOST_READ) {
                return false;
            }
        }

        return false;
    }

    /** @param  Closure(ManifestEntry, int<1, max>): string  $read */
    private static function read(?ReadFrom $from, Manifest $manifest, Closure $read): ?string
    {
        if ($from === null) {
            return null;
        }
        foreach (self::files($from->file, $manifest) as $file) {
            $found = $from->read(mb_scrub($read($file, self::READ)));
            if ($found !== null) {
                return $found;
            }
        }

        return null;
    }

    /** @return iterable<ManifestEntry> */
    private static function files(PathPattern $pattern, Manifest $manifest): iterable
    {
        $one = strpbrk($pattern->pattern, '*?') === false ? $manifest->get($pattern->pattern) : null;
        if ($one !== null) {
            return $one->isFile() ? [$one] : [];
        }

        return array_filter(
            $manifest->files(),
            static fn (ManifestEntry $file): bool => $pattern->matches($file->path->toString()),
        );
    }
}
