<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Drawing;

/** The place on the line for each file of a package. */
final class Places
{
    public const MISSING = 'missing ';

    /** @var array<string, string> the place by the path of a file */
    private array $places = [];

    /** @var array<string, list<string>> the files of each place, in the order of the line */
    private array $files = [];

    /**
     * @param  list<string>  $files  in the order of their paths
     * @param  string  $open  the directory that is opened
     */
    public function __construct(array $files, string $open)
    {
        $isRoomForAll = count($files) <= ReferenceDrawing::MOST;
        $kept = [];
        foreach ($files as $file) {
            $place = $isRoomForAll ? "file $file" : self::place($file, $open);
            $above = dirname(substr($place, (int) strpos($place, ' ') + 1));
            // The first places of a directory are shown, what is more of them is one place.
            if (! isset($kept[$above][$place])) {
                $room = $above === ($open === '' ? '.' : $open) ? ReferenceDrawing::MOST - 12 : 8;
                count($kept[$above] ?? []) < $room || $place = "others $above";
                $kept[$above][$place] = true;
            }
            $this->places[$file] = $place;
            $this->files[$place][] = $file;
        }
    }

    /** @return string the place of a file; of a directory that of the first file in it */
    public function of(string $path): string
    {
        if (isset($this->places[$path])) {
            return $this->places[$path];
        }
        foreach ($this->places as $file => $place) {
            if (str_starts_with((string) $file, "$path/")) {
                return $place;
            }
        }

        return self::MISSING;
    }

    /**
     * @param  array<string, true>  $reached  files that visitors come to
     * @return list<DrawnNode> what nobody comes to at the end
     */
    public function nodes(array $reached, bool $isMissing): array
    {
        $nodes = [];
        foreach ($this->files as $place => $files) {
            [$kind, $path] = explode(' ', $place, 2);
            $nodes[] = new DrawnNode(
                NodeKind::from($kind),
                $path,
                count($files),
                array_intersect_key(array_flip($files), $reached) !== [],
            );
        }
        $apart = array_filter($nodes, static fn (DrawnNode $node): bool => ! $node->isReached);
        $missing = $isMissing ? [new DrawnNode(NodeKind::Missing, '', 0, true)] : [];

        return [...array_values(array_diff_key($nodes, $apart)), ...$missing, ...array_values($apart)];
    }

    /** The file itself in the directory that is opened and above it; else the directory that leads to it. */
    private static function place(string $file, string $open): string
    {
        $at = $open === '' ? [] : explode('/', $open);
        $names = explode('/', $file);
        $depth = 0;
        while (isset($at[$depth]) && $depth < count($names) - 1 && $names[$depth] === $at[$depth]) {
            $depth++;
        }

        return $depth === count($names) - 1
            ? "file $file"
            : 'directory '.implode('/', array_slice($names, 0, $depth + 1));
    }
}
