<?php

declare(strict_types=1);

namespace Tests\Core\Path;

use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\PathPatterns;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Patterns have an answer, whatever somebody has written into them. */
final class PathPatternTest extends TestCase
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
    public function test_all_ways_agree(string $pattern, array $is, array $isNot): void
    {
        foreach ([...array_fill_keys($is, true), ...array_fill_keys($isNot, false)] as $path => $matches) {
            self::assertSame($matches, (new PathPattern($pattern))->matches($path), $path);
            self::assertSame($matches, (new PathPattern($pattern))->followed($path), "$path, followed");
            $several = new PathPatterns(PathPattern::all(['nothing', $pattern]));
            self::assertSame($matches, $several->match($path), "$path, with others");
        }
    }

    public function test_below_a_directory_its_letters_mean_themselves(): void
    {
        foreach (['plain', 'sale [new]', 'what?', '*stars*', '[!a]'] as $directory) {
            $below = (new PathPattern('up/**'))->below($directory);
            foreach (['plain', 'sale n', 'sale [new]', 'what?', 'whats', '*stars*', 'xstarsx', '[!a]', 'b'] as $other) {
                self::assertSame($other === $directory, $below->matches("$other/up/a/b"), "$directory and $other");
                self::assertSame($other === $directory, $below->followed("$other/up/a/b"), "$directory and $other");
            }
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
            $patterns = new PathPattern($pattern);
            self::assertSame($patterns->matches($path), $patterns->followed($path), "$pattern and $path");
        }
    }

    public function test_a_pattern_that_explodes_still_keeps_what_it_is_to_keep(): void
    {
        $pattern = str_repeat('*a', 30).'*b';
        $path = str_repeat('a', 250).'cb';
        self::assertFalse(@preg_match('#\A'.(new PathPattern($pattern))->expression().'#us', $path), 'it gives up');
        self::assertTrue((new PathPatterns(PathPattern::all(['uploads/', $pattern])))->match($path));
        self::assertTrue((new PathPattern($pattern))->matches($path));
        self::assertFalse((new PathPatterns(PathPattern::all([$pattern])))->match(str_repeat('a', 250).'c'));
    }
}
