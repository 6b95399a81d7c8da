<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\PageNames;

/**
 * The order in which files that were sent get their names, so that nothing is shown before what it needs.
 *
 * First what nothing refers to, then assets, each after those that it loads itself (an image before the style sheet
 * that shows it), then pages, and the start pages last.
 */
final class RenameOrder
{
    private const UNREFERENCED = 0;

    private const PAGES = 1_000;

    private const START = 2_000;

    /** @var array<string, int> by path */
    private array $heights = [];

    /**
     * @param  array<string, true>  $assets  paths that change and are no pages, as keys
     * @param  array<string, list<string>>  $loads  what each file loads
     */
    private function __construct(private readonly array $assets, private readonly array $loads)
    {
    }

    /**
     * @param  list<string>  $startPages
     * @param  array<string, list<string>>|null  $loads  what each file that changes loads, by path; null where that is
     *     not known: all assets then are alike
     * @return list<list<PlanItem>>
     */
    public static function forPlan(Plan $plan, array $startPages, ?array $loads): array
    {
        $items = $plan->files(Change::Add, Change::Replace);
        $assets = [];
        foreach ($items as $item) {
            PageNames::isPage($item->path) || $assets[$item->path->toString()] = true;
        }
        $order = new self($assets, $loads ?? []);
        $referred = [];
        foreach ($loads ?? [] as $targets) {
            $referred += array_fill_keys($targets, true);
        }
        $waves = [];
        foreach ($items as $item) {
            $path = $item->path->toString();
            $waves[match (true) {
                in_array($path, $startPages, true) => self::START,
                PageNames::isPage($item->path) => self::PAGES,
                $loads !== null && ! isset($referred[$path]) => self::UNREFERENCED,
                default => 1 + $order->height($path),
            }][] = $item;
        }
        ksort($waves);

        return array_values($waves);
    }

    /** How many assets have to be there one after the other before this one; a circle is cut where it is met. */
    private function height(string $path): int
    {
        if (isset($this->heights[$path])) {
            return $this->heights[$path];
        }
        $this->heights[$path] = 0;
        $height = 0;
        foreach ($this->loads[$path] ?? [] as $target) {
            $target !== $path && isset($this->assets[$target]) && $height = max($height, 1 + $this->height($target));
        }

        return $this->heights[$path] = min($height, self::PAGES - 2);
    }
}
