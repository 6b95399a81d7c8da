<?php

declare(strict_types=1);

namespace Tests\Core\Path;

use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\PathPatterns;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PathPatternsTest extends TestCase
{
    /** @return iterable<string, array{string, list<string>, list<string>}> pattern, what it takes, what it does not */
    public static function patterns(): iterable
    {
        yield 'a file' => ['config.php', ['config.php'], ['configXphp', 'a/config.php', 'config.php.bak', 'config']];
        yield 'a directory' => ['uploads/', ['uploads', 'uploads/a', 'uploads/a/b'], ['uploads2/a', 'my/uploads/a']];
        yield 'one further down' => ['data/up/', ['data/up', 'data/up/a'], ['data', 'data/upper/a']];
        yield 'any name' => ['data/*/', ['data/up/a', 'data/up'], ['data', 'other/up/a']];
        yield 'a part of a name' => ['*.log', ['error.log', '.log'], ['logs/error.log', 'error.log.1']];
        yield 'one letter' => ['page?.html', ['page1.html'], ['page.html', 'page12.html', 'page/.html']];
        yield 'one of some letters' => ['[ab].css', ['a.css', 'b.css'], ['c.css', 'ab.css']];
        yield 'none of some letters' => ['[!ab].css', ['c.css'], ['a.css', '/.css']];
        yield 'a range' => ['v[0-9].js', ['v3.js'], ['vx.js']];
        yield 'signs that mean something elsewhere' => ['a.(b)+#^$', ['a.(b)+#^$'], ['a.b', 'ax(b)+#^$']];
        yield 'a bracket that is not closed' => ['a[b', ['a[b'], ['ab']];
        yield 'letters beyond a to z' => ['bücher/*.pdf', ['bücher/grüße.pdf'], ['bucher/a.pdf']];
    }

    /**
     * @param  list<string>  $takes
     * @param  list<string>  $leaves
     */
    #[DataProvider('patterns')]
    public function test_a_pattern_takes_whole_names_only(string $pattern, array $takes, array $leaves): void
    {
        $patterns = new PathPatterns(PathPattern::all(['never', $pattern]));
        foreach ($takes as $path) {
            self::assertTrue($patterns->match($path), "$pattern takes $path");
        }
        foreach ($leaves as $path) {
            self::assertFalse($patterns->match($path), "$pattern leaves $path");
        }
    }

    public function test_no_pattern_takes_nothing(): void
    {
        self::assertFalse((new PathPatterns([]))->match('a'));
    }
}
