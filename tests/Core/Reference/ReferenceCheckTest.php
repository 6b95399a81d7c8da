<?php

declare(strict_types=1);

namespace Tests\Core\Reference;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\BrokenReference;
use Cellarium\Core\Reference\Documents;
use Cellarium\Core\Reference\Fault;
use Cellarium\Core\Reference\ReferenceCheck;
use Cellarium\Core\Reference\Resolver;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every planted fault is found with its file, its line and what was meant; what is right is left alone. */
final class ReferenceCheckTest extends TestCase
{
    private const SITE = [
        'index.html' => '<a href="news/">News</a><a href=about.html#who>Who</a><img src="img/harbour.jpg">',
        'about.html' => '<h1 id=who>Who</h1><link rel=stylesheet href=css/site.css>',
        'news/index.html' => '<a href="../">Back</a><img src="../img/gr%C3%B6%C3%9Fe.png">',
        'css/site.css' => 'p{background:url(../img/harbour.jpg)}',
        'img/harbour.jpg' => 'x',
        'img/größe.png' => 'x',
        'fonts/a.woff2' => 'x',
    ];

    /**
     * @param  array<string, string>  $files
     * @return list<BrokenReference>
     */
    private static function broken(array $files): array
    {
        $entries = [];
        foreach ($files as $name => $text) {
            $entries[$name] = new ManifestEntry(RelativePath::fromString($name), EntryKind::File, strlen($text));
            for ($above = dirname($name); $above !== '.'; $above = dirname($above)) {
                $entries[$above] = new ManifestEntry(RelativePath::fromString($above), EntryKind::Directory);
            }
        }

        $check = new ReferenceCheck(new Resolver(Manifest::fromEntries($entries), ['site.example']));
        foreach ($files as $name => $text) {
            Documents::isOne($name, strlen($text)) && $check->add($name, Documents::read($name, $text));
        }

        return $check->finish()->broken;
    }

    public function test_a_site_that_is_right_has_none(): void
    {
        self::assertSame([], self::broken(self::SITE));
    }

    /** @return iterable<string, array{string, string, Fault, 3?: string|null}> */
    public static function faults(): iterable
    {
        yield 'another case' => ['x.html', '<img src="img/Harbour.JPG">', Fault::WrongCase, 'img/harbour.jpg'];
        yield 'a directory in another case' => [
            'x.html',
            '<img src="IMG/harbour.jpg">',
            Fault::WrongCase,
            'img/harbour.jpg',
        ];
        yield 'another Unicode form' => [
            'x.html',
            "<img src=\"img/gro\u{308}\u{df}e.png\">",
            Fault::WrongCase,
            'img/größe.png',
        ];
        yield 'missing, one near' => ['x.html', '<a href="abuot.html">', Fault::Missing, 'about.html'];
        yield 'missing, the same name elsewhere' => [
            'x.html',
            '<img src="harbour.jpg">',
            Fault::Missing,
            'img/harbour.jpg',
        ];
        yield 'missing, none near' => ['x.html', '<img src="nothing-of-the-kind.svg">', Fault::Missing, null];
        yield 'missing, by the name of the site' => [
            'x.html',
            '<a href="https://site.example/gone.html">',
            Fault::Missing,
        ];
        yield 'a slash behind a file' => ['x.html', '<a href="about.html/">', Fault::Missing, 'about.html'];
        yield 'a directory without a start page' => ['x.html', '<a href="fonts/">', Fault::Listing];
        yield 'above the root' => ['x.html', '<img src="../img/harbour.jpg">', Fault::AboveRoot, 'img/harbour.jpg'];
        yield 'a file of the author' => ['x.html', '<img src="file:///C:/site/a.png">', Fault::LocalFile];
        yield 'a private host' => ['x.html', '<script src="http://localhost:8000/a.js"></script>', Fault::PrivateHost];
        yield 'a login' => ['x.html', '<a href="ftp://x"><a href="https://who:pw@other.example/">', Fault::WithLogin];
        yield 'loaded without TLS' => ['x.html', '<img src="http://other.example/a.png">', Fault::PlainHttp];
        yield 'no such place in another page' => ['x.html', '<a href="about.html#nobody">', Fault::NoSuchPlace];
        yield 'no such place in the page' => ['x.html', '<a href="#nobody">', Fault::NoSuchPlace];
        yield 'in a style sheet' => [
            'css/x.css',
            'p{background:url(img/harbour.jpg)}',
            Fault::Missing,
            'img/harbour.jpg',
        ];
        yield 'in a module' => ['js/x.js', 'import a from "./gone.js";', Fault::Missing];
        yield 'in a manifest of an app' => [
            'app.webmanifest',
            '{"icons":[{"src":"img\/Harbour.jpg"}],"start_url":"/"}',
            Fault::WrongCase,
            'img/harbour.jpg',
        ];
        yield 'a source map' => ['js/x.js', "let a = 1;\n//# sourceMappingURL=x.js.map\n", Fault::Missing];
    }

    #[DataProvider('faults')]
    public function test_it_finds_and_nothing_else(
        string $file,
        string $text,
        Fault $fault,
        ?string $meant = null,
    ): void {
        $broken = self::broken([$file => "\n\n$text"] + self::SITE);

        self::assertCount(1, $broken);
        self::assertSame(
            [$fault, $file, $meant],
            [$broken[0]->fault, $broken[0]->file, $broken[0]->suggestion ?? $meant],
        );
        self::assertSame(str_contains($text, "\n//#") ? 4 : 3, $broken[0]->line);
        $meant === null || self::assertSame($meant, $broken[0]->suggestion);
    }

    /** @return iterable<string, array{string}> */
    public static function right(): iterable
    {
        yield 'the top of a page' => ['<a href="#"><a href="#top"><a href="about.html#">'];
        yield 'states of scripts behind a hash' => [
            '<a href="#/route/x"><a href="#a=b"><a href="about.html#:~:text=Who">',
        ];
        yield 'links by http:' => ['<a href="http://other.example/">'];
        yield 'addresses that are no places' => ['<a href="tel:+0"><a href="javascript:void(0)"><img src="data:,x">'];
        yield 'names of directories without a slash' => ['<a href="news">'];
        yield 'what is asked with a question' => ['<img src="img/harbour.jpg?v=3">'];
    }

    public function test_sources_for_a_bundler_name_modules_without_their_ending(): void
    {
        self::assertSame([], self::broken([
            'src/a.js' => 'import b from "./b"; import c from "./c";',
            'src/b.js' => '',
            'src/c/index.js' => '',
        ]));
    }

    #[DataProvider('right')]
    public function test_it_leaves_alone(string $text): void
    {
        self::assertSame([], self::broken(['x.html' => $text] + self::SITE));
    }
}
