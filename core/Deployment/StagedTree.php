<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\PageNames;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanItem;

/**
 * The whole tree that a plan comes to, as it is laid beside a document root: what is made there, what is laid into it,
 * and what moves over from the old tree at the last moment, since it goes on changing until then.
 */
final readonly class StagedTree
{
    /** @var array<string, true> */
    private array $moved;

    /**
     * @param  array<string, int|null>  $directories  to make, outer ones first, with the modes they are to have
     * @param  array<string, LaidFile>  $files  by path
     * @param  list<RelativePath>  $moves  files, links and whole directories; none lies in another
     */
    private function __construct(public array $directories, public array $files, public array $moves)
    {
        $this->moved = array_fill_keys(array_map(strval(...), $moves), true);
    }

    public static function fromPlan(Plan $plan): self
    {
        $moves = self::movesOf($plan);
        $moved = array_fill_keys(array_map(strval(...), $moves), true);
        $files = [];
        $directories = [];
        foreach ($plan->items as $item) {
            if (self::liesIn($item->path, $moved)) {
                continue;
            }
            if (! $item->isFile()) {
                // A directory that is set aside is made where something in it lingers.
                if (self::isDirectory($item) && $item->change !== Change::SetAside) {
                    $directories[$item->path->toString()] = $item->mode ?? $item->live?->mode;
                }

                continue;
            }
            $file = self::file($item);
            if ($file !== null) {
                $files[$item->path->toString()] = $file;
            }
        }
        $inside = array_map(static fn (LaidFile $file): RelativePath => $file->entry->path, array_values($files));
        foreach ([...$inside, ...$moves] as $path) {
            foreach ($path->ancestors() as $above) {
                $directories[$above->toString()] ??= null;
            }
        }
        ksort($directories, SORT_STRING);

        return new self($directories, $files, $moves);
    }

    /** Whether a path moves over from the old tree, by itself or with a directory above it. */
    public function moves(RelativePath $path): bool
    {
        return self::liesIn($path, $this->moved);
    }

    /** Whether the old tree still holds a file once all that moves has gone over. */
    public function leavesSomething(Plan $plan): bool
    {
        foreach ($plan->items as $item) {
            if ($item->live?->isFile() === true && ! $this->moves($item->path)) {
                return true;
            }
        }

        return false;
    }

    public function bytes(): int
    {
        return array_sum(array_map(static fn (LaidFile $file): int => $file->entry->size, $this->files));
    }

    private static function file(PlanItem $item): ?LaidFile
    {
        return match ($item->change) {
            Change::Add => new LaidFile(
                $item->target ?? throw new \LogicException('added from nothing'),
                false,
                $item->mode,
            ),
            Change::Replace => new LaidFile(
                $item->target ?? throw new \LogicException('replaced by nothing'),
                false,
                $item->mode ?? $item->live?->mode,
            ),
            Change::Same => new LaidFile(
                $item->live ?? throw new \LogicException('the same as nothing'),
                true,
                $item->mode ?? $item->live->mode,
            ),
            // A page that was open before asks for what goes with it a moment later.
            Change::SetAside => PageNames::isPage($item->path) || $item->live === null
                ? null
                : new LaidFile($item->live, true, $item->live->mode, true),
            default => null,
        };
    }

    /** @return list<RelativePath> */
    private static function movesOf(Plan $plan): array
    {
        $mixed = [];
        $kept = [];
        foreach ($plan->items as $item) {
            if (self::isMoved($item)) {
                $kept[$item->path->toString()] = $item->path;
                foreach ($item->path->ancestors() as $above) {
                    $kept[$above->toString()] ??= $above;
                }
            } elseif (! (self::isDirectory($item) && $item->change === Change::Same)) {
                $mixed[$item->path->toString()] = true;
                foreach ($item->path->ancestors() as $above) {
                    $mixed[$above->toString()] = true;
                }
            }
        }
        $whole = array_diff_key($kept, $mixed);
        $known = array_fill_keys(array_keys($whole), true);

        return array_values(array_filter(
            $whole,
            static fn (RelativePath $path): bool => ! self::liesIn($path, $known, true),
        ));
    }

    /** What stays as it is on the server, and links, which cannot be laid. */
    private static function isMoved(PlanItem $item): bool
    {
        return $item->live !== null
            && ($item->change === Change::Keep || ! ($item->isFile() || self::isDirectory($item)));
    }

    private static function isDirectory(PlanItem $item): bool
    {
        return ($item->target ?? $item->live)?->kind === EntryKind::Directory;
    }

    /**
     * @param  array<string, true>  $paths
     * @param  bool  $below  whether lying below one counts only, and being one does not
     */
    private static function liesIn(RelativePath $path, array $paths, bool $below = false): bool
    {
        if (! $below && isset($paths[$path->toString()])) {
            return true;
        }
        foreach ($path->ancestors() as $above) {
            if (isset($paths[$above->toString()])) {
                return true;
            }
        }

        return false;
    }
}
