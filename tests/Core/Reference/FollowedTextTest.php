<?php

declare(strict_types=1);

namespace Tests\Core\Reference;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\FollowedText;
use Cellarium\Core\Reference\Moves;
use Cellarium\Core\Reference\Resolver;
use Cellarium\Core\Reference\TornReference;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What becomes of references when files of a site move or go. */
final class FollowedTextTest extends TestCase
{
    private const FILES = [
        'index.html',
        'prices.html',
        'img/dial.png',
        'img/a b.png',
        'journal/index.html',
        'journal/brass.html',
        'style.css',
    ];

    /**
     * @param  array<string, string|null>  $moves
     */
    private static function followed(
        string $path,
        string $text,
        array $moves,
        string $own = 'whimbrelpost.example',
    ): FollowedText {
        $entries = [];
        foreach (self::FILES as $file) {
            $entries[] = new ManifestEntry(RelativePath::fromString($file), EntryKind::File, 1);
        }
        foreach (['img', 'journal'] as $directory) {
            $entries[] = new ManifestEntry(RelativePath::fromString($directory), EntryKind::Directory);
        }

        return FollowedText::fromText(
            $path,
            $text,
            new Moves($moves),
            new Resolver(Manifest::fromEntries($entries), [$own]),
            [$own],
        );
    }

    /** @return array<string, array{string, string, array<string, string|null>, string|null}> */
    public static function moves(): array
    {
        return [
            'a file that is called otherwise' => [
                'index.html',
                '<img src="img/dial.png?v=2">',
                ['img/dial.png' => 'img/brass.png'],
                '<img src="img/brass.png?v=2">',
            ],
            'a name with a blank' => [
                'index.html',
                '<img src="img/a%20b.png">',
                ['img/a b.png' => 'img/c d.png'],
                '<img src="img/c%20d.png">',
            ],
            'a directory with all in it' => [
                'journal/brass.html',
                '<img src="../img/dial.png"><a href="/img/dial.png">',
                ['img' => 'pictures'],
                '<img src="../pictures/dial.png"><a href="/pictures/dial.png">',
            ],
            'a directory that is linked as one' => [
                'index.html',
                '<a href="journal/#today">',
                ['journal' => 'diary'],
                '<a href="diary/#today">',
            ],
            'the start page of a directory' => [
                'prices.html',
                '<a href="journal/">',
                ['journal/index.html' => 'journal/old.html'],
                '<a href="journal/old.html">',
            ],
            'a page that moves itself' => [
                'journal/brass.html',
                '<img src="../img/dial.png"><a href="index.html">',
                ['journal/brass.html' => 'brass.html'],
                '<img src="img/dial.png"><a href="journal/index.html">',
            ],
            'a directory whose pages lead to each other and out of it' => [
                'journal/brass.html',
                '<a href="index.html"><a href="../prices.html"><a href="#here">',
                ['journal' => 'old/journal'],
                '<a href="index.html"><a href="../../prices.html"><a href="#here">',
            ],
            'an address with the own host' => [
                'index.html',
                '<link rel="canonical" href="https://whimbrelpost.example/prices.html">'
                    .'<a href="https://whimbrelpost.example/prices.html">',
                ['prices.html' => 'cost.html'],
                '<link rel="canonical" href="https://whimbrelpost.example/cost.html">'
                    .'<a href="https://whimbrelpost.example/cost.html">',
            ],
            'a style sheet' => [
                'style.css',
                'body { background: url("img/dial.png") }',
                ['img/dial.png' => 'dial.png'],
                'body { background: url("dial.png") }',
            ],
            'what has nothing to do with it' => [
                'index.html',
                '<a href="prices.html"><a href="https://elsewhere.example/img/dial.png"><img src="gone.png">',
                ['img/dial.png' => 'img/brass.png'],
                null,
            ],
            'a page that goes itself' => ['prices.html', '<img src="img/dial.png">', ['prices.html' => null,
                'img/dial.png' => null], null],
        ];
    }

    /** @param  array<string, string|null>  $moves */
    #[DataProvider('moves')]
    public function test_references_follow_what_moves(
        string $path,
        string $text,
        array $moves,
        ?string $expected,
    ): void {
        $followed = self::followed($path, $text, $moves);

        self::assertSame($expected, $followed->text);
        self::assertSame($expected === null, $followed->torn === []);
    }

    public function test_what_goes_tears_references_that_nothing_mends(): void
    {
        $followed = self::followed(
            'index.html',
            "<p>\n<img src='img/dial.png'> <a href='prices.html'>",
            ['img' => null, 'prices.html' => 'cost.html'],
        );

        self::assertEquals([
            new TornReference('index.html', 2, 'img/dial.png', 'img/dial.png', null),
            new TornReference('index.html', 2, 'prices.html', 'prices.html', 'cost.html'),
        ], $followed->torn);
        self::assertSame("<p>\n<img src='img/dial.png'> <a href='cost.html'>", $followed->text);
    }
}
