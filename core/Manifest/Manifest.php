<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Json\JsonLines;
use Cellarium\Core\Path\RelativePath;

/** The entries below one directory, ordered by the bytes of the paths; each path once. */
final readonly class Manifest
{
    /** @param  array<string, ManifestEntry>  $entries by path, ordered */
    private function __construct(private array $entries)
    {
    }

    /** @param  iterable<ManifestEntry>  $entries in any order; of two with one path the last counts */
    public static function fromEntries(iterable $entries): self
    {
        $byPath = [];
        foreach ($entries as $entry) {
            $byPath[$entry->path->toString()] = $entry;
        }
        ksort($byPath, SORT_STRING);

        return new self($byPath);
    }

    public function get(RelativePath|string $path): ?ManifestEntry
    {
        return $this->entries[(string) $path] ?? null;
    }

    /** @return list<ManifestEntry> */
    public function all(): array
    {
        return array_values($this->entries);
    }

    /** @return list<ManifestEntry> */
    public function files(): array
    {
        return array_values(array_filter($this->entries, static fn (ManifestEntry $entry): bool => $entry->isFile()));
    }

    public function bytes(): int
    {
        return array_sum(array_map(static fn (ManifestEntry $entry): int => $entry->size, $this->entries));
    }

    /** @param  iterable<ManifestEntry>  $entries */
    public function with(iterable $entries): self
    {
        return self::fromEntries([...$this->all(), ...$entries]);
    }

    /** The same, one or more directories further down; these are in it then. */
    public function below(RelativePath $directory): self
    {
        $entries = [];
        for ($depth = 1; $depth <= $directory->depth(); $depth++) {
            $entries[] = new ManifestEntry(
                RelativePath::fromString(implode('/', array_slice($directory->segments(), 0, $depth))),
                EntryKind::Directory,
            );
        }
        foreach ($this->entries as $entry) {
            $entries[] = $entry->at(RelativePath::fromString("$directory/$entry->path"));
        }

        return self::fromEntries($entries);
    }

    /** What lies below a directory, as if that were the top. */
    public function inside(string $directory): self
    {
        $entries = [];
        foreach ($this->entries as $path => $entry) {
            if (str_starts_with((string) $path, "$directory/")) {
                $entries[] = $entry->at(RelativePath::fromString(substr((string) $path, strlen($directory) + 1)));
            }
        }

        return self::fromEntries($entries);
    }

    /**
     * What is named, with all below it and the directories it lies in.
     *
     * @param  list<string>  $paths  of files and directories
     */
    public function chosen(array $paths): self
    {
        $named = array_flip($paths);
        $chosen = [];
        foreach ($this->entries as $path => $entry) {
            $parents = [];
            for ($at = $entry->path; $at !== null; $at = $at->parent()) {
                $parents[] = $at->toString();
            }
            if (array_intersect_key($named, array_flip($parents)) !== []) {
                $chosen += array_intersect_key($this->entries, array_flip($parents));
            }
        }

        return self::fromEntries($chosen);
    }

    /**
     * All but what is named and what lies below that.
     *
     * @param  list<string>  $paths  of files and directories
     */
    public function outside(array $paths): self
    {
        $named = array_flip($paths);
        $isOutside = static function (ManifestEntry $entry) use ($named): bool {
            for ($at = $entry->path; $at !== null; $at = $at->parent()) {
                if (isset($named[$at->toString()])) {
                    return false;
                }
            }

            return true;
        };

        return new self(array_filter($this->entries, $isOutside));
    }

    /** Only what lies below a directory, by the paths it has. */
    public function under(string $directory): self
    {
        $isUnder = static fn (string|int $path): bool => str_starts_with((string) $path, "$directory/");

        return new self(array_filter($this->entries, $isUnder, ARRAY_FILTER_USE_KEY));
    }

    /** @param  list<string>  $paths */
    public function without(array $paths): self
    {
        return new self(array_diff_key($this->entries, array_flip($paths)));
    }

    /**
     * Hashes taken over from an earlier look wherever the listing shows no difference.
     *
     * A file changed within the second it was last seen in looks unchanged; therefore only entries are trusted whose
     * time lies before the given one.
     *
     * @param  int  $trustedBefore  seconds since 1970, UTC
     */
    public function withKnownHashes(self $earlier, int $trustedBefore): self
    {
        $entries = [];
        foreach ($this->entries as $path => $entry) {
            $known = $earlier->entries[$path] ?? null;
            $trusted = $known !== null && $known->sha256 !== null && $entry->looksLike($known)
                && $entry->modified !== null && $entry->modified < $trustedBefore;
            $entries[$path] = $trusted ? $entry->withSha256($known->sha256, $known->readAt) : $entry;
        }

        return new self($entries);
    }

    /**
     * The first of these names that is a file at the top; servers go by such a list.
     *
     * @param  list<string>  $names
     * @param  string  $directory  that is the top, where the manifest begins above it
     */
    public function startPage(array $names, string $directory = ''): ?ManifestEntry
    {
        foreach ($names as $name) {
            $entry = $this->entries[$directory === '' ? $name : "$directory/$name"] ?? null;
            if ($entry !== null && $entry->isFile()) {
                return $entry;
            }
        }

        return null;
    }

    /** SHA-256 over paths, kinds, sizes and times: equal when two listings show the same. */
    public function digest(): string
    {
        $hash = hash_init('sha256');
        foreach ($this->entries as $path => $entry) {
            hash_update(
                $hash,
                $path
                    ."\0"
                    .$entry->kind->value
                    ."\0"
                    .($entry->isFile() ? "$entry->size\0$entry->modified" : '')
                    ."\n",
            );
        }

        return hash_final($hash);
    }

    /** @return \Generator<int, string> as text, an entry each line, in their order */
    public function lines(): \Generator
    {
        return JsonLines::encode(
            (function (): \Generator {
                foreach ($this->entries as $entry) {
                    yield $entry->toArray();
                }
            })(),
        );
    }

    public function toText(): string
    {
        return implode('', iterator_to_array($this->lines(), false));
    }

    /** One entry of a manifest that is text, without the others being read; null where it holds none of that path. */
    public static function entryOf(string $text, string $path): ?ManifestEntry
    {
        $begin = rtrim(JsonLines::line(['path' => $path]), "}\n").',';
        $at = str_starts_with($text, $begin) ? 0 : strpos($text, "\n$begin");
        if ($at === false) {
            return null;
        }
        $at += $text[$at] === "\n" ? 1 : 0;

        return ManifestEntry::fromFields(JsonFields::fromJson(
            substr($text, $at, (int) strpos($text, "\n", $at) - $at),
        ));
    }

    public static function fromText(string $text): self
    {
        return self::fromEntries(
            (static function () use ($text): \Generator {
                foreach (JsonLines::decode($text) as $fields) {
                    yield ManifestEntry::fromFields($fields);
                }
            })(),
        );
    }
}
