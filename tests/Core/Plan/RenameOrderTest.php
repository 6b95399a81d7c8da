<?php

declare(strict_types=1);

namespace Tests\Core\Plan;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\RenameOrder;
use PHPUnit\Framework\TestCase;

final class RenameOrderTest extends TestCase
{
    private const PATHS = ['a.css', 'b.css', 'bg.png', 'data.bin', 'index.html', 'page.html'];

    /**
     * @param  array<string, list<string>>|null  $loads
     * @return list<list<string>>
     */
    private static function order(?array $loads): array
    {
        $plan = Planner::plan(
            Manifest::fromEntries(array_map(static fn (string $path): ManifestEntry => new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                1,
                sha256: str_repeat('0', 64),
            ), self::PATHS)),
            Manifest::fromEntries([]),
            new Policy,
        );

        return array_map(
            static fn (array $wave): array => array_map(strval(...), array_column($wave, 'path')),
            RenameOrder::forPlan($plan, ['index.html'], $loads),
        );
    }

    public function test_nothing_has_its_name_before_what_it_loads(): void
    {
        self::assertSame(
            [['data.bin'], ['bg.png'], ['b.css'], ['a.css'], ['page.html'], ['index.html']],
            self::order([
                'index.html' => ['a.css'],
                'page.html' => ['a.css', 'index.html'],
                'a.css' => ['b.css'],
                'b.css' => ['bg.png', 'elsewhere/kept.png'],
            ]),
        );
    }

    public function test_a_circle_is_cut_and_all_are_there_once(): void
    {
        $order = self::order(['a.css' => ['b.css'], 'b.css' => ['a.css', 'a.css'], 'index.html' => ['bg.png']]);

        self::assertSame(self::PATHS, (static function (array $all): array {
            sort($all);

            return $all;
        })(array_merge(...$order)));
        self::assertSame(['index.html'], $order[count($order) - 1]);
    }

    public function test_where_nobody_knows_assets_come_before_pages(): void
    {
        self::assertSame([['a.css', 'b.css', 'bg.png', 'data.bin'], ['page.html'], ['index.html']], self::order(null));
    }
}
