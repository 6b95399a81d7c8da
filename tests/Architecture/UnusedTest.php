<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPUnit\Framework\TestCase;

/** Nothing lies about that the product itself names nowhere: methods, constants, views, classes of the style sheet. */
final class UnusedTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    private const PRODUCT = [
        'core', 'app', 'routes', 'resources/views', 'database', 'config', 'bootstrap', 'demo', 'standin', 'bin',
        'public/js',
    ];

    /** What PHP and the framework call by names of theirs. */
    private const CALLED = '/\A(?:__\w+|stream_\w+|boot|terminate|getDeletedAtColumn|CREATED_AT|UPDATED_AT)\z/';

    public function test_every_public_method_and_constant_is_named_somewhere_else(): void
    {
        $declared = [];
        foreach (self::files() as $name => $text) {
            if (preg_match('/\A(?:core|app)\//', $name) === 1) {
                preg_match_all('/public (?:static function|function|const) (\w+)/', $text, $found);
                array_push($declared, ...$found[1]);
            }
        }
        $named = array_count_values(preg_split('/\W+/', implode("\n", self::files())) ?: []);
        $unused = [];
        foreach (array_count_values($declared) as $name => $times) {
            $called = preg_match('/\Ascope([A-Z]\w+)\z/', $name, $scope) === 1 ? lcfirst($scope[1]) : $name;
            $others = ($named[$called] ?? 0) - ($called === $name ? $times : 0);
            preg_match(self::CALLED, $name) === 1 || $others > 0 || $unused[] = $name;
        }

        self::assertSame([], $unused);
    }

    public function test_every_view_is_shown_by_something(): void
    {
        $all = implode("\n", self::files());
        $unused = [];
        foreach (array_keys(self::files()) as $name) {
            if (preg_match('/\Aresources\/views\/(?!errors\/)([\w\/-]+)\.blade\.php\z/', $name, $view) !== 1) {
                continue;
            }
            $isComponent = str_starts_with($view[1], 'components/');
            $isShown = $isComponent
                ? str_contains($all, '<x-'.substr($view[1], strlen('components/')))
                : preg_match('/[\'"]'.preg_quote(strtr($view[1], '/', '.'), '/').'[\'"]/', $all) === 1;
            $isShown || $unused[] = $name;
        }

        self::assertSame([], $unused);
    }

    public function test_what_views_name_is_there(): void
    {
        $missing = [];
        foreach (self::files() as $name => $text) {
            preg_match_all('/@use\(\'([\w\\\\]+)\'\)/', str_ends_with($name, '.blade.php') ? $text : '', $used);
            foreach ($used[1] as $type) {
                class_exists($type) || interface_exists($type) || $missing[] = "$name uses $type";
            }
        }

        self::assertSame([], $missing);
    }

    public function test_every_class_of_the_style_sheet_is_used(): void
    {
        $all = implode("\n", self::files());
        $sheet = implode("\n", array_map(file_get_contents(...), (array) glob(self::ROOT.'/public/css/*.css')));
        preg_match_all('/\.(?!is-|depth-)([a-z][\w-]+)/', $sheet, $classes);
        $isUsed = static fn (string $class): bool => preg_match(
            '/(?<![\w-])'.preg_quote($class, '/').'(?![\w-])/',
            $all,
        ) === 1;
        self::assertSame(
            [],
            array_values(array_filter(array_unique($classes[1]), static fn (string $one): bool => ! $isUsed($one))),
        );
    }

    /** @return array<string, string> text by name below the root, of PHP without its comments */
    private static function files(): array
    {
        static $files = [];
        foreach ($files === [] ? self::PRODUCT : [] as $directory) {
            $all = new \RecursiveDirectoryIterator(self::ROOT."/$directory", \FilesystemIterator::SKIP_DOTS);
            foreach (new \RecursiveIteratorIterator($all) as $file) {
                $name = substr($file->getPathname(), strlen(self::ROOT) + 1);
                if (! str_starts_with($name, 'bootstrap/cache')) {
                    $text = (string) file_get_contents($file->getPathname());
                    $isCode = preg_match('/(?<!\.blade)\.php\z/', $name) === 1;
                    $files[$name] = $isCode ? self::withoutComments($text) : $text;
                }
            }
        }

        return $files;
    }

    private static function withoutComments(string $code): string
    {
        return implode('', array_map(
            static fn (\PhpToken $token): string => $token->is([T_COMMENT, T_DOC_COMMENT]) ? ' ' : $token->text,
            \PhpToken::tokenize($code),
        ));
    }
}
