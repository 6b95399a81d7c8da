<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanItem;

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
     * @return list<array{
     *     path: string,
     *     depth: int,
     *     directory: bool,
     *     item: PlanItem|null,
     *     target: array{int, int},
     *     live: array{int, int},
     *     changes: array<string, int>,
     * }>  files and bytes on both sides
     */
    public static function ofPlan(Plan $plan): array
    {
        $rows = [];
        foreach ($plan->items as $item) {
            foreach ($item->path->ancestors() as $above) {
                $rows[$above->toString()] ??= self::row(
                    $above->toString(),
                    $above->depth(),
                    true,
                    null,
                );
            }
            $path = $item->path->toString();
            $rows[$path] = self::row(
                $path,
                $item->path->depth(),
                ! $item->isFile(),
                $item,
            );
            if ($item->isFile()) {
                foreach ($item->path->ancestors() as $above) {
                    $rows[$above->toString()] = self::counted($rows[$above->toString()], $item);
                }
            }
        }

        return self::ordered($rows);
    }

    /**
     * @return array{
     *     path: string,
     *     depth: int,
     *     directory: bool,
     *     item: PlanItem|null,
     *     target: array{int, int},
     *     live: array{int, int},
     *     changes: array<string, int>,
     * }
     */
    private static function row(
        string $path,
        int $depth,
        bool $directory,
        ?PlanItem $item,
    ): array {
        return [
            'path' => $path,
            'depth' => $depth - 1,
            'directory' => $directory,
            'item' => $item,
            'target' => [0, 0],
            'live' => [0, 0],
            'changes' => [],
        ];
    }

    /**
     * @param  array{
     *     path: string,
     *     depth: int,
     *     directory: bool,
     *     item: PlanItem|null,
     *     target: array{int, int},
     *     live: array{int, int},
     *     changes: array<string, int>,
     * }  $row
     * @return array{
     *     path: string,
     *     depth: int,
     *     directory: bool,
     *     item: PlanItem|null,
     *     target: array{int, int},
     *     live: array{int, int},
     *     changes: array<string, int>,
     * }
     */
    private static function counted(array $row, PlanItem $item): array
    {
        $row['target'] = self::sum($row['target'], $item->target);
        $row['live'] = self::sum($row['live'], $item->live);
        $row['changes'][$item->change->label()] = ($row['changes'][$item->change->label()] ?? 0) + 1;

        return $row;
    }

    /**
     * @param  array{int, int}  $sum
     * @return array{int, int}
     */
    private static function sum(array $sum, ?ManifestEntry $entry): array
    {
        return $entry === null ? $sum : [$sum[0] + 1, $sum[1] + $entry->size];
    }

    /** The style a change is shown in. */
    public static function tone(Change $change): string
    {
        return match ($change) {
            Change::Add => 'proven',
            Change::Replace => 'soon',
            Change::Same => 'plain',
            Change::Keep => 'kept',
            Change::SetAside => 'now',
        };
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
