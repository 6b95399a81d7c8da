<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

use Cellarium\Core\Manifest\Manifest;

/** The names there are, found exactly, in another case or form, and by likeness. */
final class Names
{
    private const MOST_CANDIDATES = 3000;

    /** Of one name in many directories so many are measured. */
    private const MOST_OF_A_NAME = 20;

    /** Longer names are not compared letter by letter. */
    private const LONGEST = 64;

    /** So often in all; a site with more broken references than that has another trouble than letters. */
    private int $comparisons = 100_000;

    /** @var array<string, bool> whether it is a directory, by path */
    private array $paths = ['' => true];

    /** @var array<string, string> the path as it is, by the path without case and form */
    private array $folded = [];

    /** @var array<string, list<string>> paths by last name, folded */
    private array $byName = [];

    /** @var array<int, list<string>> last names, folded, by their bytes */
    private array $byLength = [];

    public function __construct(Manifest $manifest)
    {
        foreach ($manifest->all() as $entry) {
            $path = $entry->path->toString();
            $this->paths[$path] = ! $entry->isFile();
            $this->folded[self::fold($path)] ??= $path;
            $entry->isFile() && $this->byName[self::fold(basename($path))][] = $path;
        }
        foreach (array_keys(array_slice($this->byName, 0, self::MOST_CANDIDATES)) as $name) {
            $this->byLength[strlen((string) $name)][] = (string) $name;
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
        $same = array_slice($this->byName[$name] ?? [], 0, self::MOST_OF_A_NAME);
        if ($same !== []) {
            $distance = array_map(static fn (string $one): int => self::distance($one, $path), $same);
            array_multisort($distance, $same);

            return $same[0];
        }

        return strlen($name) > self::LONGEST ? null : $this->alike($name);
    }

    private function alike(string $name): ?string
    {
        $best = null;
        $most = min(3, max(1, intdiv(strlen($name), 4)));
        for ($length = strlen($name) - $most; $length <= strlen($name) + $most && $this->comparisons > 0; $length++) {
            foreach ($this->byLength[$length] ?? [] as $other) {
                $distance = self::distance($other, $name);
                if ($distance <= $most) {
                    [$best, $most] = [$this->byName[$other][0], $distance - 1];
                }
            }
            $this->comparisons -= count($this->byLength[$length] ?? []);
        }

        return $best;
    }

    private static function distance(string $a, string $b): int
    {
        return levenshtein(substr($a, -250), substr($b, -250));
    }

    /** The same for names that many computers take for one: without case, composed (Unicode NFC). */
    public static function fold(string $path): string
    {
        if (preg_match('/[\x80-\xff]/', $path) !== 1) {
            return strtolower($path);
        }
        $form = \Normalizer::normalize($path, \Normalizer::FORM_C);

        return mb_strtolower(is_string($form) ? $form : $path);
    }
}
