<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\ServedAs;
use Cellarium\Core\Package\VisibleFile;

/** Addresses and what they would give: what needs a look first, so many at once. */
final readonly class ServedView
{
    private const FIRST = 12;

    private const MOST = 200;

    /** @var list<VisibleFile> */
    private array $all;

    /** @param  list<VisibleFile>  $served */
    public function __construct(array $served)
    {
        // The top, what should not be fetched, directories with pages and no start page, pages, listings.
        $rank = static fn (VisibleFile $one): int => match (true) {
            $one->address === '/' => 0,
            $one->as === ServedAs::Exposed => 1,
            $one->as === ServedAs::Listing && $one->hasPages => 2,
            $one->as === ServedAs::Page => 3,
            default => 4,
        };
        usort($served, static fn (VisibleFile $a, VisibleFile $b): int => $rank($a) <=> $rank($b));
        $this->all = $served;
    }

    /** @return list<VisibleFile> */
    public function first(): array
    {
        return array_slice($this->all, 0, self::FIRST);
    }

    /** @return list<VisibleFile> */
    public function others(): array
    {
        return array_slice($this->all, self::FIRST, self::MOST - self::FIRST);
    }

    public function notShown(): int
    {
        return max(0, count($this->all) - self::MOST);
    }
}
