<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Packages\FileTree;
use App\Text\Amount;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanItem;

/** One row of the plan's tree: a directory with what it sums up, or a file with both sides. */
final readonly class PlanRow
{
    private const DEEPEST_SHOWN = 8;

    private const NOTHING = '—';

    /**
     * @param  string|null  $address  where visitors reach it
     * @param  array{string, string}  $target  size or files, and the time of a file; "" where not known
     * @param  array{string, string}  $live
     * @param  list<string>  $sums  of a directory: "3 replaced"
     */
    private function __construct(
        public string $path,
        public int $depth,
        public bool $directory,
        public ?string $address,
        public array $target,
        public array $live,
        public array $sums = [],
        public string $tone = '',
        public string $change = '',
        public string $why = '',
        public string $mode = '',
    ) {
    }

    /**
     * @param  array<string, mixed>  $row  of FileTree::ofPlan()
     * @param  list<PlanItem>  $last  those that are named last of all
     */
    public static function of(
        array $row,
        RemotePath $root,
        PublicAddress $addresses,
        array $last,
    ): self {
        $item = $row['item'];
        $address = $addresses->of($root->join(RelativePath::fromString($row['path'])));
        $depth = min(self::DEEPEST_SHOWN, $row['depth']);
        if ($row['directory'] || ! $item instanceof PlanItem) {
            $sums = array_map(
                static fn (string $label, int $count): string => "$count $label",
                array_keys($row['changes']),
                array_values($row['changes']),
            );

            return new self(
                $row['path'].'/',
                $depth,
                true,
                $address,
                [self::files($row['target'][0]), ''],
                [self::files($row['live'][0]), ''],
                $sums === [] && $item instanceof PlanItem && $item->change === Change::Add ? ['made'] : $sums,
                mode: self::mode($item),
            );
        }

        return new self(
            $row['path'],
            $depth,
            false,
            $address,
            self::side($item->target),
            self::side($item->live),
            tone: FileTree::tone($item->change),
            change: self::label($item->change).(in_array($item, $last, true) ? ', last of all' : ''),
            why: $item->why->sentence(),
            mode: self::mode($item),
        );
    }

    /** What is set; "" where the mode stays as it is. */
    private static function mode(?PlanItem $item): string
    {
        return $item?->mode === null ? '' : sprintf('mode %04o', $item->mode);
    }

    private static function label(Change $change): string
    {
        return $change === Change::SetAside
            ? 'set aside '.config('cellarium.set_aside_days').' days'
            : $change->label();
    }

    private static function files(int $files): string
    {
        return $files === 0 ? self::NOTHING : Amount::files($files);
    }

    /** @return array{string, string} */
    private static function side(?ManifestEntry $entry): array
    {
        return $entry === null
            ? [self::NOTHING, '']
            : [Amount::bytes($entry->size), $entry->modified === null ? '' : gmdate('j M H:i', $entry->modified)];
    }
}
