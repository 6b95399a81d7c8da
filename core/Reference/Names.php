<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

use Cellarium\Core\Manifest\Manifest;

/** The names there are, found exactly, in another case or form, and by likeness. */
final class Names
{
    private const MOST_CANDIDATES = 3000;

    /** @var array<string, bool> whether it is a directory, by path */
    private array $paths = ['' => true];

    /** @var array<string, string> the path as it is, by the path without case and form */
    private array $folded = [];

    /** @var array<string, list<string>> paths by last name, folded */
    private array $byName = [];

    public function __construct(Manifest $manifest)
    {
        foreach ($manifest->all() as $entry) {
            $path = $entry->path->toString();
            $this->paths[$path] = ! $entry->isFile();
            $this->folded[self::fold($path)] ??= $path;
            $entry->isFile() && $this->byName[self::fold(basename($path))][] = $path;
        }
    }

    public function has(string $path): bool
    {
        return isset($this->paths[$path]);
    }

    public function isDirectory(string $path): bool
    {
        return $this->paths[$path] ?? false;
    }

    /** The same name in another case or Unicode form; null where there is none. */
    public function otherwiseWritten(string $path): ?string
    {
        return $this->folded[self::fold($path)] ?? null;
    }

    /** The nearest there is: the same name elsewhere, else one that differs by few letters; null where none is near. */
    public function nearest(string $path): ?string
    {
        $name = self::fold(basename($path));
        $same = $this->byName[$name] ?? [];
        if ($same !== []) {
            $distance = array_map(static fn (string $one): int => self::distance($one, $path), $same);
            array_multisort($distance, $same);

            return $same[0];
        }
        $best = null;
        $most = min(3, max(1, intdiv(strlen($name), 4)));
        foreach (array_slice(array_keys($this->byName), 0, self::MOST_CANDIDATES) as $other) {
            if (abs(strlen((string) $other) - strlen($name)) <= $most) {
                $distance = self::distance((string) $other, $name);
                if ($distance <= $most) {
                    [$best, $most] = [$this->byName[$other][0], $distance - 1];
                }
            }
        }

        return $best;
    }

    private static function distance(string $a, string $b): int
    {
        return levenshtein(substr($a, -250), substr($b, -250));
    }

    private static function fold(string $path): string
    {
        if (preg_match('/[\x80-\xff]/', $path) !== 1) {
            return strtolower($path);
        }
        $form = \Normalizer::normalize($path, \Normalizer::FORM_C);

        return mb_strtolower(is_string($form) ? $form : $path);
    }
}
