<?php

declare(strict_types=1);

namespace Tests\Core\Package\Drawing;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Drawing\DrawnArc;
use Cellarium\Core\Package\Drawing\DrawnNode;
use Cellarium\Core\Package\Drawing\ReferenceDrawing;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\Severity;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\Links;
use PHPUnit\Framework\TestCase;

final class ReferenceDrawingTest extends TestCase
{
    /** @param  list<string>  $paths */
    private static function manifest(array $paths): Manifest
    {
        return Manifest::fromEntries(array_map(
            static fn (string $path): ManifestEntry => new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                1,
            ),
            $paths,
        ));
    }

    /** @return list<string> "kind path files", with a mark for what nobody comes to */
    private static function nodes(ReferenceDrawing $drawing): array
    {
        return array_map(
            static fn (DrawnNode $node): string => trim(
                "{$node->kind->value} $node->path $node->files".($node->isReached ? '' : ' apart'),
            ),
            $drawing->nodes,
        );
    }

    /** @return list<string> "from to times", with a mark for broken ones */
    private static function arcs(ReferenceDrawing $drawing): array
    {
        return array_map(
            static fn (DrawnArc $arc): string => "$arc->from $arc->to $arc->times".($arc->isBroken ? ' broken' : ''),
            $drawing->arcs,
        );
    }

    private static function broken(string $path, ?string $suggestion): PackageFinding
    {
        return new PackageFinding(FindingCode::ReferenceMissing, Severity::Warn, 'x', $path, 1, $suggestion);
    }

    public function test_every_file_of_a_small_package_has_its_place_and_what_nobody_comes_to_stands_apart(): void
    {
        $drawing = ReferenceDrawing::fromLinks(
            self::manifest(['about.html', 'css/a.css', 'img/b.png', 'index.html', 'old.html']),
            new Links([
                'index.html' => ['about.html' => 2, 'css/a.css' => 1],
                'css/a.css' => ['img/b.png' => 3],
                'old.html' => ['css/a.css' => 1],
            ]),
            [self::broken('about.html', 'img/b.png'), self::broken('about.html', null), self::broken('old.html', null)],
        );

        self::assertSame([
            'file about.html 1',
            'file css/a.css 1',
            'file img/b.png 1',
            'file index.html 1',
            'missing  0',
            'file old.html 1 apart',
        ], self::nodes($drawing));
        self::assertSame(
            ['3 0 2', '3 1 1', '1 2 3', '5 1 1', '0 2 1 broken', '0 4 1 broken', '5 4 1 broken'],
            self::arcs($drawing),
        );
    }

    public function test_a_site_of_thousands_is_drawn_by_directories_and_opened_where_one_looks(): void
    {
        $paths = ['index.html', 'about.html', 'css/a.css'];
        $links = ['index.html' => ['css/a.css' => 1]];
        foreach (['news', 'tides'] as $directory) {
            for ($number = 0; $number < 1000; $number++) {
                $paths[] = sprintf('%s/%02d/%04d.html', $directory, $number % 20, $number);
                $links['index.html'][end($paths)] = 1;
                $links[end($paths)] = ['css/a.css' => 1, 'news/00/0000.html' => 1];
            }
        }
        $manifest = self::manifest($paths);

        $all = ReferenceDrawing::fromLinks($manifest, new Links($links), []);
        self::assertSame([
            'directory css 1',
            'file index.html 1',
            'directory news 1000',
            'directory tides 1000',
            'file about.html 1 apart',
        ], self::nodes($all));
        self::assertContains('3 2 1000', self::arcs($all));

        $opened = ReferenceDrawing::fromLinks($manifest, new Links($links), [], 'news/00');
        $nodes = self::nodes($opened);
        self::assertContains('file news/00/0000.html 1', $nodes);
        self::assertContains('others news/00 6', $nodes);
        self::assertContains('directory news/01 50', $nodes);
        self::assertContains('directory tides 1000', $nodes);
        self::assertLessThanOrEqual(ReferenceDrawing::MOST + 12, count($nodes));
        $files = array_sum(array_map(static fn (DrawnNode $node): int => $node->files, $opened->nodes));
        self::assertSame(count($paths), $files);
    }

    public function test_links_are_read_as_they_were_written(): void
    {
        $links = new Links(['a' => ['b' => 1, 'c' => 2], 'c' => ['a' => 3], '7' => ['8' => 1]]);

        self::assertEquals($links, Links::fromJson($links->toJson()));
        self::assertSame(['a' => 2], $links->from('c'));
        self::assertSame(['a' => true, 'b' => true, 'c' => true], $links->reached(['a']));
    }
}
