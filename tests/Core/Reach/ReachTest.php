<?php

declare(strict_types=1);

namespace Tests\Core\Reach;

use Cellarium\Core\Connection\LocalRemoteDirectory;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\DirectoryTree;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\Reach;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

final class ReachTest extends TestCase
{
    use Scratch;

    private static function reach(string $directory): Reach
    {
        return Reach::of(RemotePath::fromString($directory), ['a.example' => RemotePath::fromString('/www/a.example'), 'b.example' => RemotePath::fromString('/www/b.example')]);
    }

    /** @return iterable<array{string, list<string>, bool, string}> */
    public static function reaches(): iterable
    {
        yield ['/', ['whole', 'whole'], true, '2 of 2 sites'];
        yield ['/www', ['whole', 'whole'], true, '2 of 2 sites'];
        yield ['/www/a.example', ['whole', 'none'], false, '1 of 2 sites, a.example'];
        yield ['/www/a.example/orders', ['part', 'none'], false, '1 of 2 sites, only the part under /orders'];
        yield ['/www/a.exampl', ['none', 'none'], false, 'no site, only files beside them'];
        yield ['/mail', ['none', 'none'], false, 'no site, only files beside them'];
    }

    /** @param  list<string>  $extents */
    #[DataProvider('reaches')]
    public function test_reach_over_sites(string $directory, array $extents, bool $tooWide, string $sentence): void
    {
        $reach = self::reach($directory);
        self::assertSame($extents, array_map(static fn ($site): string => $site->extent->value, $reach->sites));
        self::assertSame($tooWide, $reach->isTooWide());
        self::assertSame($sentence, $reach->sentence());
        self::assertSame($directory === '/', $reach->isWholeAccount());
    }

    public function test_a_part_is_named(): void
    {
        $site = self::reach('/www/a.example/orders/new')->sites[0];
        self::assertSame(Extent::Part, $site->extent);
        self::assertSame('orders/new', $site->part?->toString());
    }

    public function test_the_tree_says_what_was_not_looked_into(): void
    {
        $root = $this->directory();
        mkdir("$root/www/a/b/c", 0755, true);
        mkdir("$root/www-old");
        self::assertSame(['/' => true, '/www' => true, '/www/a' => false, '/www-old' => true], DirectoryTree::look(new LocalRemoteDirectory($root), 1)->directories);
        self::assertCount(2, array_filter(DirectoryTree::look(new LocalRemoteDirectory($root), 9, 2)->directories));
    }
}
