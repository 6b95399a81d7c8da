<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Site;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\PlanDirectory;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\PlanReader;

/** The tree of a plan as rows: as much of it as is open. The rest is asked for as people open it. */
final readonly class PlanTree
{
    /** Trees of no more rows stand open. */
    private const OPEN = 150;

    /** Of what lies in one directory, or is found, as many are given at a time. */
    public const PAGE = 100;

    public function __construct(
        private PlanReader $plan,
        private Site $site,
        private RunPlace $place,
        public PlanFilter $filter = new PlanFilter,
        private bool $goesBack = false,
    ) {
    }

    /** Files that the filter lets through, by their change; the name does not count. */
    public function matching(): int
    {
        return $this->plan->contents->directories['']->matching($this->filter);
    }

    /** What stands there first: all of it where it is small, or the top; or what has a name. */
    public function rows(): PlanRows
    {
        return $this->filter->name === ''
            ? $this->inside('', 0, $this->matching() + count($this->plan->contents->directories) <= self::OPEN)
            : $this->found(0);
    }

    /**
     * Of one directory.
     *
     * @param  int  $from  so many are passed over
     * @param  bool  $deep  whether what lies further down follows
     */
    public function inside(string $directory, int $from, bool $deep = false): PlanRows
    {
        $rows = [];
        $all = $this->directories($directory);
        foreach (array_slice($all, $from, self::PAGE) as $one) {
            $rows[] = $this->directory($one, $deep);
            $deep && array_push($rows, ...$this->inside($one->path, 0, true)->rows);
        }
        $files = $this->plan->files($directory, $this->filter);
        $passed = max(0, $from - count($all));
        $room = self::PAGE - count(array_slice($all, $from, self::PAGE));
        foreach (array_slice($files, $passed, max(0, $room)) as $item) {
            $rows[] = $this->file($item, self::depth($directory));
        }

        return new PlanRows(
            $rows,
            $directory,
            $from + self::PAGE,
            max(0, count($all) + count($files) - $from - self::PAGE),
            self::depth($directory),
        );
    }

    /** Files anywhere, by a part of their path. */
    public function found(int $from): PlanRows
    {
        [$items, $count] = $this->plan->search($this->filter, $from, self::PAGE);

        return new PlanRows(
            array_map(fn (PlanItem $item): PlanRow => $this->file($item, null), $items),
            '',
            $from + self::PAGE,
            max(0, $count - $from - self::PAGE),
            isFound: true,
        );
    }

    /** @return list<PlanDirectory> with anything in it that the filter lets through */
    private function directories(string $directory): array
    {
        $isEverything = $this->filter->change === null && ! $this->filter->questions;

        return array_values(array_filter(
            $this->plan->contents->inside($directory),
            fn (PlanDirectory $one): bool => $isEverything || $one->matching($this->filter) > 0,
        ));
    }

    private function directory(PlanDirectory $directory, bool $isOpen): PlanRow
    {
        return PlanRow::ofDirectory(
            $directory,
            $this->address($directory->path),
            self::depth($directory->path) - 1,
            $isOpen,
            $this->goesBack,
        );
    }

    private function file(PlanItem $item, ?int $depth): PlanRow
    {
        return PlanRow::ofFile(
            $item,
            $this->address($item->path->toString()),
            $depth,
            in_array($item->path->toString(), $this->place->allInRun($this->site->start_pages), true),
            $this->goesBack,
        );
    }

    private function address(string $path): ?string
    {
        return $this->site->addresses()->of($this->place->root->join(RelativePath::fromString($path)));
    }

    private static function depth(string $directory): int
    {
        return $directory === '' ? 0 : substr_count($directory, '/') + 1;
    }
}
