<?php

declare(strict_types=1);

namespace Tests\Core\Path;

use Cellarium\Core\Package\Type\Glob;
use Cellarium\Core\Path\Wildcards;
use Cellarium\Core\Plan\PathPatterns;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Patterns have an answer, whatever somebody has written into them. */
final class WildcardsTest extends TestCase
{
    /** @return iterable<string, array{string, list<string>, list<string>}> pattern, what it is and what it is not */
    public static function patterns(): iterable
    {
        yield 'within a name' => ['a*.php', ['a.php', 'abc.php'], ['b/a.php', 'a/b.php']];
        yield 'over directories' => ['cache/**', ['cache/a', 'cache/a/b'], ['cache', 'x/cache/a']];
        yield 'any directories' => ['**/cache/*.php', ['cache/x.php', 'a/cache/x.php', 'a/b/cache/x.php'], ['a/x.php']];
        yield 'a directory' => ['up/', ['up', 'up/a', 'up/a/b'], ['upper', 'x/up']];
        yield 'sets' => ['[ab][!c].t?t', ['ad.txt', 'bx.tet'], ['ac.txt', 'cd.txt', 'a/.txt']];
        yield 'letters of many bytes' => ['?é*', ['äé', 'aéx'], ['é']];
    }

    /**
     * @param  list<string>  $is
     * @param  list<string>  $isNot
     */
    #[DataProvider('patterns')]
    public function test_both_ways_and_both_who_use_them_agree(string $pattern, array $is, array $isNot): void
    {
        foreach ([...array_fill_keys($is, true), ...array_fill_keys($isNot, false)] as $path => $matches) {
            self::assertSame($matches, (new Wildcards($pattern))->matches($path), $path);
            self::assertSame($matches, (new Wildcards($pattern))->followed($path), "$path, followed");
            self::assertSame($matches, (new Glob($pattern))->matches($path), "$path, of a package type");
            self::assertSame($matches, (new PathPatterns(['nothing', $pattern]))->match($path), "$path, kept");
        }
    }

    public function test_any_pattern_means_the_same_by_both_ways(): void
    {
        mt_srand(26);
        $pieces = ['a', 'b', '/', '*', '?', '**', '**/', '[ab]', '[!a]'];
        for ($try = 0; $try < 4000; $try++) {
            $pattern = $path = '';
            for ($length = mt_rand(1, 6); $length > 0; $length--) {
                $pattern .= $pieces[mt_rand(0, count($pieces) - 1)];
            }
            for ($length = mt_rand(1, 7); $length > 0; $length--) {
                $path .= 'ab/'[mt_rand(0, str_ends_with("/$path", '/') ? 1 : 2)];
            }
            $wildcards = new Wildcards($pattern);
            self::assertSame($wildcards->matches($path), $wildcards->followed($path), "$pattern and $path");
        }
    }

    public function test_a_pattern_that_explodes_still_keeps_what_it_is_to_keep(): void
    {
        $pattern = str_repeat('*a', 30).'*b';
        $path = str_repeat('a', 250).'cb';
        self::assertFalse(@preg_match('#\A'.(new Wildcards($pattern))->expression().'#us', $path), 'it gives up');
        self::assertTrue((new PathPatterns(['uploads/', $pattern]))->match($path));
        self::assertTrue((new Glob($pattern))->matches($path));
        self::assertFalse((new PathPatterns([$pattern]))->match(str_repeat('a', 250).'c'));
    }
}
