<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;

/**
 * One step back: what a document root must hold so that one plan's changes are gone and nothing else is touched.
 */
final readonly class Undo
{
    /** @param  list<string>  $changedSince touched paths that are no longer as the plan left them */
    private function __construct(
        public Manifest $target,
        public array $changedSince,
    ) {
    }

    /**
     * @param  Plan  $done  the plan that was carried out
     * @param  Manifest  $before  the backup taken for it, hashes known
     * @param  Manifest  $after  the listing taken when it was done
     * @param  Manifest  $live  what is there now
     */
    public static function fromPlan(Plan $done, Manifest $before, Manifest $after, Manifest $live): self
    {
        $changedSince = [];
        $back = [];
        $gone = [];
        foreach ($done->items as $item) {
            $path = $item->path->toString();
            $left = $after->get($path);
            $now = $live->get($path);
            if (! $item->change->touches()) {
                $back = [...$back, ...self::withOldMode($item, $now)];

                continue;
            }
            if (
                ($item->isFile() && ($left === null) !== ($now === null))
                || ($left !== null && $now !== null && $left->isFile() && ! $left->looksLike($now))
            ) {
                $changedSince[] = $path;
            }
            $old = $before->get($path);
            $old === null ? $gone[] = $path : $back[] = $old;
        }

        $target = $live->without($gone)->with($back);

        return new self($target->with(self::stillNeeded($gone, $live, $target)), $changedSince);
    }

    /** @return list<ManifestEntry> what was only given another mode, with the one it had */
    private static function withOldMode(PlanItem $item, ?ManifestEntry $now): array
    {
        return $item->mode === null || $now === null || $item->live?->mode === null
            ? []
            : [$now->withMode($item->live->mode)];
    }

    /**
     * Directories the plan made in which something of somebody else's lies by now.
     *
     * @param  list<string>  $gone
     * @return list<ManifestEntry>
     */
    private static function stillNeeded(array $gone, Manifest $live, Manifest $target): array
    {
        $needed = [];
        foreach ($target->all() as $entry) {
            foreach ($entry->path->ancestors() as $above) {
                $directory = in_array($above->toString(), $gone, true) ? $live->get($above) : null;
                if ($directory !== null) {
                    $needed[] = $directory;
                }
            }
        }

        return $needed;
    }
}
