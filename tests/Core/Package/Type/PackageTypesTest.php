<?php

declare(strict_types=1);

namespace Tests\Core\Package\Type;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\Recognition;
use Cellarium\Core\Package\Type\TypeRefused;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Package\Type\TypeYaml;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\PathPatterns;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PackageTypesTest extends TestCase
{
    private const SHIPPED = __DIR__.'/../../../../resources/package-types';

    private static function yaml(): TypeYaml
    {
        return new TypeYaml((string) file_get_contents(self::SHIPPED.'/schema.json'));
    }

    private static function shipped(): PackageTypes
    {
        return new PackageTypes(array_map(
            static fn (string $file): PackageType => self::yaml()->parse((string) file_get_contents($file)),
            glob(self::SHIPPED.'/*.yaml') ?: [],
        ));
    }

    /** @param  array<string, string>  $files */
    private static function recognise(array $files, ?PackageTypes $types = null): Recognition
    {
        return ($types ?? self::shipped())->recognise(
            Manifest::fromEntries(array_map(
                static fn (string $path): ManifestEntry => new ManifestEntry(
                    RelativePath::fromString($path),
                    EntryKind::File,
                    1,
                ),
                array_keys($files),
            )),
            static fn (ManifestEntry $file, int $bytes): string => substr($files["$file->path"], 0, $bytes),
        );
    }

    public function test_the_public_folder_of_an_application_becomes_the_document_root(): void
    {
        $type = self::shipped()->get('php-application') ?? self::fail('it ships');
        $target = TypeRules::aroundDocumentRoot(
            self::manifest(['public/', 'public/index.php', 'public/css/a.css', 'publicity.txt', 'src/A.php']),
            $type,
            RelativePath::fromString('htdocs'),
        );
        self::assertSame(
            ['htdocs', 'htdocs/css/a.css', 'htdocs/index.php', 'publicity.txt', 'src/A.php'],
            array_map(static fn (ManifestEntry $entry): string => $entry->path->toString(), $target->all()),
        );
    }

    public function test_what_a_type_keeps_by_any_pattern_is_kept_by_the_plan(): void
    {
        $type = self::yaml()->parse(
            "id: some\nlabel: Some\nrecognise: { from: 1, markers: [{ file: x, weight: 1, says: yes it is }] }\n"
                ."goes: { into: document_root }\nkeeps: ['uploads/**', 'cache/*', 'media/', '**/local.ini']\n",
        );
        $kept = ['uploads/a.jpg', 'uploads/2026/12/b.jpg', 'cache/x', 'media/deep/c.mp4', 'conf/d/local.ini'];
        $replaced = ['cache/deep/x', 'index.html', 'uploads.html'];
        foreach (['', 'shop'] as $below) {
            $at = static fn (string $path): string => ltrim("$below/$path", '/');
            $live = self::manifest(array_map($at, [...$kept, ...$replaced]));
            $plan = Planner::plan(
                Manifest::fromEntries(array_map(
                    static fn (ManifestEntry $entry): ManifestEntry => $entry->isFile()
                        ? new ManifestEntry($entry->path, EntryKind::File, 1, sha256: hash('sha256', 'x'))
                        : $entry,
                    $live->all(),
                )),
                $live,
                new Policy(TypeRules::keeps($type, $below)),
            );
            $of = array_column(array_map(
                static fn (PlanItem $item): array => [(string) $item->path, $item->change],
                $plan->items,
            ), 1, 0);
            foreach ($kept as $path) {
                self::assertSame(Change::Keep, $of[$at($path)], $at($path));
            }
            foreach ($replaced as $path) {
                self::assertSame(Change::Replace, $of[$at($path)], $at($path));
            }
        }
    }

    public function test_what_must_be_writable_gets_its_mode_wherever_it_comes_from(): void
    {
        $type = self::yaml()->parse(
            "id: some\nlabel: Some\nrecognise: { from: 1, markers: [{ file: x, weight: 1, says: yes it is }] }\n"
                ."goes: { into: document_root }\nwritable:\n"
                ."    - { path: own.txt, mode: '0664' }\n    - { path: made/deep/, mode: '0775' }\n"
                ."    - { path: made, mode: '0770' }\n    - { path: theirs.ini, mode: '0640' }\n",
        );
        $target = TypeRules::writable(
            self::manifest(['app/own.txt']),
            $type,
            'app',
            self::manifest(['app/theirs.ini']),
        );
        self::assertSame(
            [
                'app' => ['directory', null],
                'app/made' => ['directory', 0770],
                'app/made/deep' => ['directory', 0775],
                'app/own.txt' => ['file', 0664],
                'app/theirs.ini' => ['file', 0640],
            ],
            array_combine(
                array_map(static fn (ManifestEntry $entry): string => $entry->path->toString(), $target->all()),
                array_map(
                    static fn (ManifestEntry $entry): array => [$entry->kind->value, $entry->mode],
                    $target->all(),
                ),
            ),
        );
    }

    public function test_a_writable_path_that_leaves_is_refused(): void
    {
        $this->expectException(TypeRefused::class);
        $this->expectExceptionMessage('../other is no path');
        self::yaml()->parse(
            "id: some\nlabel: Some\nrecognise: { from: 1, markers: [{ file: x, weight: 1, says: yes it is }] }\n"
                ."goes: { into: document_root }\nwritable: [{ path: ../other, mode: '0664' }]\n",
        );
    }

    /** @param  list<string>  $paths  of directories with a slash at the end */
    private static function manifest(array $paths): Manifest
    {
        return Manifest::fromEntries(array_map(
            static fn (string $path): ManifestEntry => new ManifestEntry(
                RelativePath::fromString(rtrim($path, '/')),
                str_ends_with($path, '/') ? EntryKind::Directory : EntryKind::File,
            ),
            $paths,
        ));
    }

    /** @return iterable<string, array{array<string, string>, string|null, string|null, string|null}> */
    public static function packages(): iterable
    {
        $system = [
            'index.php' => '<?php require "engine/page.php";',
            'quaylight.php' => "<?php\ndefine('QUAYLIGHT_VERSION', '2.4');\n",
            'engine/page.php' => '<?php',
        ];
        yield 'a built site' => [['index.html' => 'x', 'a.css' => 'x'], 'built-site', null, null];
        yield 'pages without a start page' => [['home.html' => 'x'], 'built-site', null, null];
        yield 'an application' => [
            ['public/index.php' => 'x', 'composer.json' => '{"version": "1.2.0"}', 'src/A.php' => 'x'],
            'php-application',
            '1.2.0',
            null,
        ];
        yield 'a system' => [$system + ['setup.php' => 'x'], 'quaylight', '2.4', null];
        yield 'an update' => [$system + ['update.ini' => 'x'], 'quaylight-update', '2.4', null];
        yield 'a theme' => [
            ['theme.ini' => "name = shore\nversion = 1.2\nfor = quaylight\n", 'page.php' => 'x', 'a.html' => 'x'],
            'quaylight-theme',
            '1.2',
            'shore',
        ];
        yield 'an extension' => [
            ['extension.ini' => "name=tides\nfor=quaylight\nversion=3\n", 'extension.php' => 'x'],
            'quaylight-extension',
            '3',
            'tides',
        ];
        yield 'a theme for something else' => [['theme.ini' => "for = lamplight\n"], null, null, null];
        yield 'nothing that is known' => [['readme.txt' => 'x'], null, null, null];
    }

    /** @param  array<string, string>  $files */
    #[DataProvider('packages')]
    public function test_a_package_is_recognised_by_its_files(
        array $files,
        ?string $type,
        ?string $version,
        ?string $name,
    ): void {
        $found = self::recognise($files);

        self::assertSame([$type, $version, $name], [$found->type?->id, $found->version, $found->name]);
        self::assertSame($type === null, $found->evidence === []);
        self::assertSame([], $found->equal);
    }

    public function test_two_that_fit_equally_well_are_asked_about(): void
    {
        $one = "id: %s\nlabel: One\nrecognise: {from: 1, markers: [{file: a.txt, weight: 3, says: it is there}]}\n"
            ."goes: {into: document_root}\n";
        $types = new PackageTypes([
            self::yaml()->parse(sprintf($one, 'one')),
            self::yaml()->parse(sprintf($one, 'two')),
        ]);
        $found = self::recognise(['a.txt' => 'x'], $types);

        self::assertNull($found->type);
        self::assertSame(['one', 'two'], array_map(static fn (PackageType $type): string => $type->id, $found->equal));
    }

    public function test_every_rule_of_a_shipped_type_is_read(): void
    {
        $type = self::shipped()->get('quaylight');

        self::assertNotNull($type);
        self::assertSame([Place::DocumentRoot, false], [$type->place, $type->isUpdate]);
        self::assertSame(['data', 0775], [$type->writable[0]->path->toString(), $type->writable[0]->mode]);
        self::assertSame(['/', '/sign-in.php'], $type->proves);
        self::assertSame('PHP 8.1 or newer, with mbstring', $type->needs->inWords());
        self::assertTrue((new PathPatterns($type->never))->match('data/site.ini'));
        self::assertSame('themes/{name}', self::shipped()->get('quaylight-theme')?->directory);
        self::assertTrue(self::shipped()->get('quaylight-update')?->isUpdate);
    }

    /** @return iterable<string, array{string, string}> */
    public static function wrong(): iterable
    {
        $good = "id: one\nlabel: One\nrecognise: {from: 1, markers: [{file: a, weight: 1, says: it is}]}\n"
            ."goes: {into: document_root}\n";
        yield 'no YAML' => ["a: [b\n", 'is not understood as YAML'];
        yield 'a text' => ['hello', 'names and values'];
        yield 'an unknown name' => [$good."colour: red\n", 'colour'];
        yield 'a missing name' => [str_replace("label: One\n", '', $good), 'label'];
        yield 'an unknown place' => [str_replace('document_root', 'attic', $good), 'goes/into'];
        yield 'a theme of nothing' => [str_replace('document_root', 'inside_system', $good), 'system'];
        yield 'a mode that is none' => [$good."writable: [{path: a, mode: '0999'}]\n", 'writable/0/mode'];
        yield 'no regular expression' => [
            str_replace('says: it is', 'says: it is, holds: "(a"', $good),
            'is no regular expression',
        ];
        yield 'an object' => [
            str_replace('label: One', 'label: !php/object "O:8:\"stdClass\":0:{}"', $good),
            'Nothing',
        ];
        yield 'too much' => [$good.'# '.str_repeat('x', 70_000), 'at most'];
    }

    #[DataProvider('wrong')]
    public function test_what_is_no_description_is_refused_with_its_place(string $yaml, string $words): void
    {
        $this->expectException(TypeRefused::class);
        $this->expectExceptionMessage($words);
        self::yaml()->parse($yaml);
    }

    /** @return iterable<string, array{string, list<string>, list<string>}> */
    public static function globs(): iterable
    {
        yield 'a name' => ['a.html', ['a.html'], ['b/a.html', 'a.htmlx', 'A.html']];
        yield 'any name' => ['*.html', ['a.html', '.html'], ['b/a.html', 'a.css']];
        yield 'at any depth' => ['**/*.php', ['a.php', 'b/c/a.php'], ['a.phpx']];
        yield 'a directory' => ['data/', ['data', 'data/a', 'data/b/c'], ['database', 'x/data']];
        yield 'all below' => ['a/**', ['a/b', 'a/b/c'], ['a', 'b/a']];
        yield 'one letter' => ['a-??.css', ['a-12.css'], ['a-1.css', 'a-1/.css']];
        yield 'signs' => ['a(1)+.css', ['a(1)+.css'], ['a1.css']];
    }

    /**
     * @param  list<string>  $fits
     * @param  list<string>  $others
     */
    #[DataProvider('globs')]
    public function test_patterns_of_paths(string $pattern, array $fits, array $others): void
    {
        $pattern = new PathPattern($pattern);
        foreach ($fits as $path) {
            self::assertTrue($pattern->matches($path), $path);
        }
        foreach ($others as $path) {
            self::assertFalse($pattern->matches($path), $path);
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function explosions(): iterable
    {
        $lol = "a: &a [x, x, x, x]\nb: &b [*a, *a, *a, *a]\n";
        yield 'aliases that unfold' => [$lol, 'Anchors and aliases'];
        yield 'a merge' => ["base: &base {x: 1}\nmore:\n  <<: *base\n", 'Anchors and aliases'];
        yield 'an anchor in a list' => ["- &one x\n", 'Anchors and aliases'];
    }

    #[DataProvider('explosions')]
    public function test_what_unfolds_to_more_than_there_is_memory_is_refused(string $yaml, string $words): void
    {
        try {
            (new TypeYaml('{}'))->parse($yaml);
            self::fail('It was taken.');
        } catch (TypeRefused $refused) {
            self::assertStringContainsString($words, $refused->getMessage());
        }
    }

    public function test_patterns_are_bounded_and_an_ampersand_in_a_text_is_none_of_an_anchor(): void
    {
        $refused = static function (string $yaml): string {
            try {
                (new TypeYaml('{}'))->parse($yaml);
            } catch (TypeRefused $refused) {
                return $refused->getMessage();
            } catch (\UnexpectedValueException $further) {
                return 'further';
            }

            return 'taken';
        };
        self::assertStringContainsString('stars', $refused('kept: ["'.str_repeat('*a', 17).'"]'));
        self::assertStringContainsString('bytes', $refused('label: "'.str_repeat('x', 2_001).'"'));
        self::assertSame('further', $refused("label: \"Marram & Tide: &c\" # a &note\nid: 'a &b'\n"));
    }
}
