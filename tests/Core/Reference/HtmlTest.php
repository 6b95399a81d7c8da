<?php

declare(strict_types=1);

namespace Tests\Core\Reference;

use Cellarium\Core\Reference\Html;
use Cellarium\Core\Reference\Reference;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every attribute that loads or links, however untidily it is written, and nothing else. */
final class HtmlTest extends TestCase
{
    /** @return iterable<string, array{string, list<string>}> */
    public static function documents(): iterable
    {
        yield 'quotes of both kinds and none' => [
            '<img src="a.png"><img src=\'b.png\'><img src=c.png><IMG SRC=d.png>',
            ['a.png', 'b.png', 'c.png', 'd.png'],
        ];
        yield 'blanks and line ends where they may be' => [
            "<a\n  href = \"a.html\"\n>x</a><img/src=b.png/><a href=' c.html '>",
            ['a.html', 'b.png/', 'c.html'],
        ];
        yield 'a quotation mark in a value without quotes' => ["<p title=it's><img src=a.png>", ['a.png']];
        yield 'an angle bracket in a value' => [
            '<img alt="a>b" src="a.png"><img alt=\'<img src="no.png">\'>',
            ['a.png'],
        ];
        yield 'tags that are never closed' => ['<ul><li><a href=a.html>x<li><a href=b.html>y', ['a.html', 'b.html']];
        yield 'comments' => ['<!-- <img src="no.png"> --><!--><img src="a.png"><!-- <img src=no.png>', ['a.png']];
        yield 'scripts that write tags' => [
            '<script>document.write("<img src=\'no.png\'>"); if (a<b) {}</script><img src=a.png>',
            ['a.png'],
        ];
        yield 'text of fields and titles' => [
            '<title><img src=no.png></title><textarea><a href=no.html></textarea><a href=a.html>',
            ['a.html'],
        ];
        yield 'what a program fills in' => [
            '<a href="{{ url }}"><img src="<?= $url ?>"><img src="{% static x %}"><a href="${base}/x"><img src=a.png>',
            ['a.png'],
        ];
        yield 'PHP before and between' => [
            '<?php if ($a > 1): ?><img src=a.png><?php echo "<img src=no.png>"; ?>',
            ['a.png'],
        ];
        yield 'the first of two attributes with one name' => ['<img src=a.png src=no.png>', ['a.png']];
        yield 'no blank between attributes' => [
            '<a class="x"href="a.html"title=y>x<img alt="y"src=b.png>',
            ['a.html', 'b.png'],
        ];
        yield 'a tag without an end' => ['<img src=a.png><img src=no.png <a href=no.html', ['a.png']];
        yield 'character references' => ['<a href="q.html?a=1&amp;b=2">', ['q.html?a=1&b=2']];
        yield 'candidates of a srcset' => [
            '<img srcset="a.png 1x, b,c.png 2x ,d.png"><source srcset="data:image/png;base64,AA== 1x, e.png 2x">',
            ['a.png', 'b,c.png', 'd.png', 'data:image/png;base64,AA==', 'e.png'],
        ];
        yield 'style sheets, in the page and in attributes' => [
            '<style>@import "a.css"; /* url(no.png) */ p{background:url( b.png )}</style>'
                .'<p style="background:url(c.png)"><p style="background:url(&quot;d.png&quot;)"><rect fill="url(#e)"/>',
            ['a.css', 'b.png', 'c.png', 'd.png', '#e'],
        ];
        yield 'modules in the page' => [
            '<script type="module">import x from "./a.js"; import("./b.js"); import "htmx"; // import "./no.js"'
                .'</script>',
            ['./a.js', './b.js'],
        ];
        yield 'drawings' => ['<svg><use xlink:href="a.svg#x"/><image href="b.png"/></svg>', ['a.svg#x', 'b.png']];
        yield 'frames, forms, quotes, players' => [
            '<iframe src=a.html></iframe><form action=b><button formaction=c></button></form>'
                .'<blockquote cite=d></blockquote><video poster=e src=f><track src=g></video>'
                .'<object data=h></object><td background=i>',
            ['a.html', 'b', 'c', 'd', 'f', 'e', 'g', 'h', 'i'],
        ];
        yield 'what <meta> leads to' => [
            '<meta http-equiv=refresh content="5; url=a.html"><meta property="og:image" content="/b.png">'
                .'<meta name=description content="no.html">',
            ['a.html', '/b.png'],
        ];
        yield 'nothing at all' => ['<a href><a href=""><img alt=x>just text < 3 and a<b', []];
    }

    /** @param  list<string>  $values */
    #[DataProvider('documents')]
    public function test_it_finds(string $html, array $values): void
    {
        $found = array_map(static fn (Reference $one): string => $one->value, Html::scan($html)->references);
        sort($found);
        sort($values);

        self::assertSame($values, $found);
    }

    public function test_each_is_told_with_its_line_and_the_bytes_it_is_written_in(): void
    {
        $html = "<!doctype html>\n<p>größer\n<img src='bild&amp;er.png'\n srcset=\"a.png 1x,\n b.png 2x\">\n";
        $document = Html::scan($html);

        self::assertSame(
            [['bild&amp;er.png', 3], ['a.png', 4], ['b.png', 5]],
            array_map(
                static fn (Reference $one): array => [
                    substr($html, $one->offset, $one->length),
                    $document->line($one->offset),
                ],
                $document->references,
            ),
        );
    }

    public function test_a_base_and_the_places_in_a_page_are_known(): void
    {
        $document = Html::scan(
            '<base href="/sub/"><base href="/no/"><h1 id=top><a name="old"><map name=m><p id="caf&eacute;">',
        );

        self::assertSame(['/sub/', ['top', 'old', 'm', 'café']], [$document->base, array_keys($document->ids)]);
    }

    public function test_a_page_of_two_megabytes_on_one_line_is_read(): void
    {
        $html = str_repeat('<p class="a" data-x=\'{"k":"v"}\'>text <a href=x.html>y</a></p>', 32_000);

        self::assertCount(32_000, Html::scan($html)->references);
        self::assertCount(1, Html::scan('<p '.str_repeat('a="b" ', 200_000).'><img src=a.png>')->references);
        self::assertCount(1, Html::scan('<script>'.str_repeat('x<y;', 500_000).'</script><img src=a.png>')->references);
    }
}
