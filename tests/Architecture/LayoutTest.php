<?php

declare(strict_types=1);

namespace Tests\Architecture;

use Illuminate\Filesystem\Filesystem;
use Illuminate\View\Compilers\BladeCompiler;
use PhpParser\NodeTraverser;
use PhpParser\ParserFactory;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** How the code is laid out: one thought a line. */
final class LayoutTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    private const COLUMNS = 120;

    /** What is written by hand, by the end of its name; the shipped libraries are not. */
    private const WRITTEN = '/\.(?:php|css|js|mjs|sh)\z|\A(?:start|stop|test|\.ci\/run|artisan)\z/';

    private const SHIPPED = ['vendor', 'var', 'public/vendor', '.git', 'bootstrap/cache'];

    public function test_no_line_is_longer_than_120_columns(): void
    {
        $long = [];
        foreach (self::files() as $name => $text) {
            foreach (explode("\n", $text) as $number => $line) {
                mb_strlen($line) <= self::COLUMNS || $long[] = "$name:".($number + 1).' has '.mb_strlen($line);
            }
        }

        self::assertSame([], $long);
    }

    public function test_code_says_one_thing_a_line(): void
    {
        $faults = [];
        foreach (self::files() as $name => $text) {
            if (str_ends_with($name, '.php') && ! str_ends_with($name, '.blade.php')) {
                foreach (self::faults($text) as $fault) {
                    // Tests have helpers with a default for everything.
                    $isHelper = str_starts_with($name, 'tests/') && str_ends_with($fault, 'more than five');
                    $isHelper || $faults[] = "$name:$fault";
                }
            }
        }

        self::assertSame([], $faults);
    }

    public function test_a_view_shows_and_does_not_compute(): void
    {
        $blade = new BladeCompiler(new Filesystem, sys_get_temp_dir());
        $blade->withoutComponentTags();
        $blade->if('leads', static fn (): bool => true);
        $computing = [];
        foreach (self::files() as $name => $text) {
            if (! str_ends_with($name, '.blade.php')) {
                continue;
            }
            preg_match('/@php\s*$/m', $text) === 1 && $computing[] = "$name has a block of PHP";
            foreach (self::faults($blade->compileString($text)) as $fault) {
                str_ends_with($fault, 'a ternary in a ternary') && $computing[] = "$name has $fault";
            }
        }

        self::assertSame([], $computing);
    }

    /** @return iterable<string, array{string, list<string>}> */
    public static function samples(): iterable
    {
        yield 'three keys' => ["return ['a' => 1, 'b' => 2, 'c' => 3];", []];
        yield 'four keys' => [
            "return ['a' => 1, 'b' => 2, 'c' => 3, 'd' => 4];",
            ['1: an array with more than three keys, not one a line'],
        ];
        yield 'a list of four' => ['return [1, 2, 3, 4];', []];
        yield 'arms' => [
            'return match ($a) { 1 => 2, default => 3 };',
            ['1: the arms of a match, not one a line'],
        ];
        yield 'a method of six' => [
            'class A { function b($c, $d, $e, $f, $g, $h) {} }',
            ['1: b takes more than five'],
        ];
        yield 'a value of six' => [
            'class A { static function b($c, $d, $e, $f, $g, $h): self {} }',
            [],
        ];
        yield 'a ternary in a ternary' => ['return $a ? 1 : ($b ? 2 : 3);', ['1: a ternary in a ternary']];
    }

    /** @param  list<string>  $faults */
    #[DataProvider('samples')]
    public function test_what_counts_as_more_than_one_thing(string $code, array $faults): void
    {
        self::assertSame($faults, self::faults("<?php $code"));
    }

    /** `WRITE_LAYOUT=1 vendor/bin/phpunit tests/Architecture/LayoutTest.php` does it. */
    public function test_a_call_is_broken_only_where_one_line_has_no_room_for_it(): void
    {
        $broken = [];
        foreach (self::files() as $name => $text) {
            if (! str_ends_with($name, '.php') || str_ends_with($name, '.blade.php')) {
                continue;
            }
            $joined = BrokenCalls::joined($text, self::COLUMNS);
            $joined === $text || $broken[] = $name;
            if (getenv('WRITE_LAYOUT') === '1') {
                file_put_contents(self::ROOT."/$name", BrokenCalls::split($joined, self::COLUMNS));
            }
        }

        self::assertSame([], $broken);
    }

    /** @return iterable<string, array{string, string}> */
    public static function calls(): iterable
    {
        yield 'short' => ["f(\n    1,\n    \$b,\n);", 'f(1, $b);'];
        yield 'one in another' => ["f(\n    g(\n        1,\n    ),\n    2,\n);", 'f(g(1), 2);'];
        yield 'parameters' => ["function f(\n    int \$a,\n): int {}", 'function f(int $a): int {}'];
        foreach (
            [
                'too long' => "f(\n    '".str_repeat('a', 20)."',\n    '".str_repeat('b', 20)."',\n);",
                'a remark' => "f(\n    1, // one\n    2,\n);",
                'an array of several lines' => "f([\n    1,\n    2,\n]);",
                'a function with a body' => "f(\n    function () {\n        g();\n    },\n);",
                'an expression of several lines' => "f(\n    1\n    + 2,\n);",
                'promoted properties' => "class A { function __construct(\n    public int \$a,\n) {} }",
                'a condition' => "if (\n    f()\n) {}",
            ] as $which => $code
        ) {
            yield $which => [$code, $code];
        }
    }

    #[DataProvider('calls')]
    public function test_what_one_line_has_room_for(string $code, string $joined): void
    {
        self::assertSame("<?php $joined", BrokenCalls::joined("<?php $code", 40));
    }

    public function test_a_line_that_is_too_long_is_broken_at_its_longest_call(): void
    {
        self::assertSame(
            "<?php\n    \$a = one(\n        two(1, [2, 3]),\n        \$b,\n    )->c();\n",
            BrokenCalls::split("<?php\n    \$a = one(two(1, [2, 3]), \$b)->c();\n", 30),
        );
    }

    /** @return list<string> */
    private static function faults(string $code): array
    {
        $visitor = new LayoutVisitor;
        (new NodeTraverser($visitor))->traverse((new ParserFactory)->createForHostVersion()->parse($code) ?? []);

        return $visitor->faults;
    }

    /** @return iterable<string, string> text by name below the root */
    private static function files(): iterable
    {
        $root = (string) realpath(self::ROOT);
        $all = new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS);
        $own = new \RecursiveCallbackFilterIterator(
            $all,
            static fn (\SplFileInfo $file): bool => ! in_array(
                substr($file->getPathname(), strlen($root) + 1),
                self::SHIPPED,
                true,
            ),
        );
        foreach (new \RecursiveIteratorIterator($own) as $file) {
            $name = substr($file->getPathname(), strlen($root) + 1);
            if (preg_match(self::WRITTEN, $name) === 1) {
                yield $name => (string) file_get_contents($file->getPathname());
            }
        }
    }
}
