<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Manifest\Manifest;

/** Files in their directories, flattened into rows; each directory sums up what lies in it. */
final class FileTree
{
    /** @return list<array{path: string, depth: int, directory: bool, files: int, bytes: int}> */
    public static function ofManifest(Manifest $manifest): array
    {
        $rows = [];
        foreach ($manifest->all() as $entry) {
            $rows[$entry->path->toString()] = [
                'path' => $entry->path->toString(),
                'depth' => $entry->path->depth() - 1,
                'directory' => ! $entry->isFile(),
                'files' => 0,
                'bytes' => $entry->size,
            ];
        }
        foreach ($manifest->files() as $file) {
            foreach ($file->path->ancestors() as $above) {
                $rows[$above->toString()]['files']++;
                $rows[$above->toString()]['bytes'] += $file->size;
            }
        }

        return self::ordered($rows);
    }

    /**
     * Each directory right above what lies in it.
     *
     * @template T of array<string, mixed>
     *
     * @param  array<string, T>  $rows
     * @return list<T>
     */
    private static function ordered(array $rows): array
    {
        uksort($rows, static fn (string $a, string $b): int => strcmp(strtr($a, '/', "\x01"), strtr($b, '/', "\x01")));

        return array_values($rows);
    }
}
