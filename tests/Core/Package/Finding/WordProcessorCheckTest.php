<?php

declare(strict_types=1);

namespace Tests\Core\Package\Finding;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\WordProcessorCheck;
use Cellarium\Core\Path\RelativePath;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Curly quotes are told around attributes, and nowhere else. */
final class WordProcessorCheckTest extends TestCase
{
    /** @return iterable<string, array{string, list<int>}> a page, and the lines that are told */
    public static function pages(): iterable
    {
        yield 'around an attribute' => ["<p>\n<a class='x' href=“a.html”>", [2]];
        yield 'with blanks, as a character reference' => ['<a href = &ldquo;a.html&rdquo;>', [1]];
        yield 'behind an angle bracket in a value that is closed' => ['<a title="x" href=“a>b”>', [1]];
        yield 'in what is read' => ['<p>href=“a.html” is how it must not be written', []];
        yield 'in a value' => ['<p title="say a=“b”">', []];
        yield 'first in what is read, then around one' => ["<p>a=“b”\n<a\nhref=”a.html”>", [3]];
        yield 'in a tag longer than anybody writes' => ['<a '.str_repeat('b ', 3000).'href=“a.html”>', []];
    }

    /** @param  list<int>  $lines */
    #[DataProvider('pages')]
    public function test_it_is_told(string $text, array $lines): void
    {
        $check = new WordProcessorCheck;
        $page = new ManifestEntry(RelativePath::fromString('a.html'), EntryKind::File, strlen($text));
        $check->look($page, $text, null);

        self::assertSame($lines, array_map(
            static fn (PackageFinding $found): ?int => $found->line,
            $check->findings(),
        ));
    }
}
