<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Site;
use App\Packages\FileTree;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;

/** The tree of a plan, so much of it as people can look at. */
final readonly class PlanRows
{
    /** A site of thousands is summed up by its directories. */
    private const MOST = 400;

    /**
     * @param  list<PlanRow>  $rows
     * @param  int  $hidden  rows that are not among them
     */
    private function __construct(public array $rows, public int $hidden)
    {
    }

    public static function of(Plan $plan, Site $site, RunPlace $place): self
    {
        $rows = FileTree::ofPlan($plan);
        $shown = count($rows) <= self::MOST ? $rows : self::touched($rows);
        $last = $plan->waves($place->allInRun($site->start_pages))['start'];
        $addresses = $site->addresses();

        return new self(
            array_map(
                static fn (array $row): PlanRow => PlanRow::of(
                    $row,
                    $place->root,
                    $addresses,
                    $last,
                ),
                $shown,
            ),
            count($rows) - count($shown),
        );
    }

    /** @return list<array{tone: string, words: string}> how many files of each kind of change, those there are */
    public static function totals(Plan $plan): array
    {
        $totals = [];
        $counts = $plan->counts();
        foreach (Change::cases() as $change) {
            $count = $counts[$change->value];
            $sent = $change === Change::Add || $change === Change::Replace;
            $count['files'] === 0 || $totals[] = [
                'tone' => FileTree::tone($change),
                'words' => number_format($count['files'])." {$change->label()}"
                    .($sent ? ' · '.Amount::bytes($count['bytes']) : ''),
            ];
        }

        return $totals;
    }

    /**
     * @param  list<array<string, mixed>>  $rows
     * @return list<array<string, mixed>> directories and what is changed, as many as are shown
     */
    private static function touched(array $rows): array
    {
        $touched = array_filter(
            $rows,
            static fn (array $row): bool => $row['directory'] || ($row['item']?->change->touches() ?? false),
        );

        return array_slice(array_values($touched), 0, self::MOST);
    }
}
