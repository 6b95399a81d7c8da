<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\KeptPlan;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;

final class KeptPlanTest extends TestCase
{
    use Scratch;

    private function plan(string ...$paths): Plan
    {
        return Planner::plan(
            StoredFiles::in(TestStore::in($this->directory()), array_fill_keys($paths, 'text')),
            Manifest::fromEntries([]),
            new Policy,
        );
    }

    public function test_a_plan_is_read_whole_or_in_part_and_a_later_one_replaces_all_of_it(): void
    {
        $directory = $this->directory();
        $kept = new KeptPlan(new FileJournal($directory), 'draft');
        self::assertNull($kept->plan());
        self::assertNull($kept->reader());
        foreach ([$this->plan('a/b.html', 'c.html'), $this->plan(), $this->plan('a/longer-name.html')] as $plan) {
            $kept->keep($plan);
            self::assertEquals($plan, $kept->plan());
            self::assertSame(
                array_map(
                    static fn (PlanItem $item): string => (string) $item->path,
                    array_values(array_filter($plan->items, static fn (PlanItem $item): bool => $item->isFile())),
                ),
                array_map(
                    static fn (PlanItem $item): string => (string) $item->path,
                    $kept->reader()?->search(new PlanFilter, 0, 10)[0] ?? [],
                ),
            );
        }
        $files = array_values(array_diff((array) scandir($directory), ['.', '..']));
        self::assertSame(['draft', 'format'], $files, 'one file, beside how all of them are written');
    }

    public function test_what_was_cut_is_an_error_and_no_shorter_plan(): void
    {
        $directory = $this->directory();
        $kept = new KeptPlan(new FileJournal($directory), 'draft');
        $kept->keep($this->plan('a.html', 'b.html'));
        file_put_contents("$directory/draft", substr((string) file_get_contents("$directory/draft"), 0, -30));
        $this->expectException(\UnexpectedValueException::class);
        $kept->plan();
    }
}
