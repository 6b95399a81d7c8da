<?php

declare(strict_types=1);

namespace Tests\Architecture;

use Cellarium\Core\Package\Finding\FindingCode;
use PHPUnit\Framework\TestCase;

/** The repository explains itself: what documents name is there, and what is there is named. */
final class DocumentsTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    private const DOCUMENTS = [
        'README.md',
        'CONTRIBUTING.md',
        'CHANGELOG.md',
        'docs/architecture.md',
        'docs/control-protocol.md',
        'docs/glossary.md',
        'docs/performance.md',
        'docs/third-party.md',
        'standin/README.md',
        'tests/README.md',
    ];

    public function test_what_is_linked_is_there(): void
    {
        $missing = [];
        foreach (self::DOCUMENTS as $name) {
            preg_match_all('/\]\((?!https?:)([^)#]+)[^)]*\)/', self::text($name), $links);
            foreach ($links[1] as $link) {
                file_exists(self::ROOT.'/'.dirname($name)."/$link") || $missing[] = "$name links $link";
            }
        }

        self::assertSame([], $missing);
    }

    public function test_files_that_are_named_are_there(): void
    {
        $missing = [];
        foreach (self::DOCUMENTS as $name) {
            preg_match_all(
                '~`((?:core|app|tests|bin|standin|demo|benchmarks|public)/[\w./-]+\.\w+)`~',
                self::text($name),
                $found,
            );
            foreach ($found[1] as $path) {
                file_exists(self::ROOT."/$path") || $missing[] = "$name names $path";
            }
        }

        self::assertSame([], $missing);
    }

    public function test_each_word_of_the_glossary_is_borne_by_a_type_that_is_there(): void
    {
        $row = '/^\| [^|]+ \| [^|]+ \| `((?:Cellarium\\\\Core|App)\\\\[\w\\\\]+)` \|$/m';
        preg_match_all($row, self::text('docs/glossary.md'), $types);
        $missing = array_filter($types[1], static fn (string $type): bool => ! is_file(self::ROOT.'/'.strtr(
            $type,
            ['Cellarium\\Core\\' => 'core/', 'App\\' => 'app/', '\\' => '/'],
        ).'.php'));

        self::assertSame([], array_values($missing));
        self::assertGreaterThan(50, count($types[1]));
        self::assertSame($types[1], array_values(array_unique($types[1])), 'one word, one type');
    }

    public function test_the_drawing_of_figures_shows_those_of_the_table(): void
    {
        exec(PHP_BINARY.' '.escapeshellarg(self::ROOT.'/benchmarks/drawing.php'), $lines, $status);

        self::assertSame(0, $status);
        self::assertStringEqualsFile(self::ROOT.'/docs/performance.svg', implode("\n", $lines)."\n");
    }

    public function test_every_folder_of_the_core_is_explained(): void
    {
        $text = self::text('docs/architecture.md');
        foreach (array_keys(Rooms::CORE) as $room) {
            self::assertStringContainsString("`$room`", $text);
        }
    }

    public function test_every_setting_that_is_read_is_in_the_example(): void
    {
        $read = [];
        foreach ((array) glob(self::ROOT.'/config/*.php') as $file) {
            preg_match_all("/env\('(\w+)'/", (string) file_get_contents((string) $file), $found);
            $read = [...$read, ...$found[1]];
        }
        foreach (['bin/services.sh', 'start', 'test'] as $script) {
            preg_match_all('/\bsetting ([A-Z]\w+_\w+)/', self::text($script), $found);
            $read = [...$read, ...$found[1]];
        }
        // An earlier name is told beside the one that it has now.
        preg_match_all('/^(?:#.* was )?([A-Z]\w+)(?:=| before)/m', self::text('.env.example'), $named);

        self::assertSame([], array_values(array_diff(array_unique($read), $named[1])));
    }

    public function test_every_code_of_a_finding_is_explained(): void
    {
        $text = (string) file_get_contents(dirname(__DIR__, 2).'/docs/findings.md');
        preg_match_all('/^\| `(\w+)` \|/m', $text, $match);

        self::assertEqualsCanonicalizing(array_column(FindingCode::cases(), 'value'), $match[1]);
    }

    public function test_every_command_is_named_in_a_document(): void
    {
        $text = implode('', array_map(file_get_contents(...), (array) glob(self::ROOT.'/{docs/*,*}.md', GLOB_BRACE)));
        foreach ((array) glob(self::ROOT.'/app/Console/Commands/*.php') as $file) {
            preg_match('/\$signature = \'cellarium:([\w-]+)/', (string) file_get_contents((string) $file), $match);
            $match === [] ?: self::assertMatchesRegularExpression("/(?:cellarium:|`)$match[1]\\b/", $text);
        }
    }

    public function test_every_package_that_is_required_has_its_licence_named(): void
    {
        $composer = json_decode(self::text('composer.json'), true);
        $packages = array_keys($composer['require'] + $composer['require-dev']);
        $text = self::text('docs/third-party.md');
        foreach (array_filter($packages, static fn (string $name): bool => str_contains($name, '/')) as $package) {
            self::assertStringContainsString("`$package`", $text);
        }
        foreach ((array) glob(self::ROOT.'/public/vendor/*.min.*') as $file) {
            self::assertStringContainsString(basename((string) $file), $text);
        }
    }

    private static function text(string $name): string
    {
        return (string) file_get_contents(self::ROOT."/$name");
    }
}
