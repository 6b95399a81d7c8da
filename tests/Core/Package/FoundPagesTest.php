<?php

declare(strict_types=1);

namespace Tests\Core\Package;

use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\PackageIntake;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\Scratch;
use Tests\Support\ScratchDisk;
use Tests\Support\TestStore;

/**
 * Pages, style sheets and scripts that nobody here has written: the archives of general-purpose libraries, as ./test
 * fetches them. Each finding that is listed was looked at by a person and is true; any other one is a false finding.
 */
final class FoundPagesTest extends TestCase
{
    use Scratch;

    /** Of all: they are wrapped in a folder, and many have no start page. Files without use are checked apart. */
    private const ORDINARY = [FindingCode::WrapperLifted, FindingCode::NoStartPage, FindingCode::FileUnused];

    /** @return iterable<string, array{string, list<string>}> the archive, and "code path line" of what is true */
    public static function archives(): iterable
    {
        $true = [
            'animate.css-4.1.1' => [],
            'bulma-1.0.4' => [],
            'htmx.org-2.0.11' => [],
            'impress.js-1.1.0' => [
                'reference_missing qunit_test_runner.html 10',
                'reference_missing qunit_test_runner.html 15',
                'reference_missing test/core_tests_presentation.html 21',
                'reference_missing js/impress.min.js 3',
            ],
            'jquery-ui-dist-1.13.3' => ['unfinished_filler index.html 65'],
            'leaflet-1.9.4' => [],
            'normalize.css-8.0.1' => [],
            'photoswipe-5.4.4' => [],
            'prismjs-1.30.0' => [],
            'reveal.js-5.2.1' => [],
            'sprintf-js-1.0.3' => ['unfinished_title demo/angular.html'],
            'swagger-ui-dist-5.35.0' => ['unfinished_title oauth2-redirect.html'],
            'taffydb-2.6.2' => [],
        ];
        foreach ($true as $name => $findings) {
            yield $name => ["$name.tgz", $findings];
        }
    }

    /** @param  list<string>  $true */
    #[DataProvider('archives')]
    public function test_what_is_found_is_true(string $archive, array $true): void
    {
        $found = $this->taken($archive);
        $others = array_filter(
            $found->findings,
            static fn (PackageFinding $one): bool => ! in_array($one->code, self::ORDINARY, true),
        );

        self::assertEqualsCanonicalizing($true, array_map(
            static fn (PackageFinding $one): string => trim("{$one->code->value} $one->path $one->line"),
            $others,
        ));
    }

    /** What is told to be without use is named in no other text of the archive, in whatever way. */
    #[DataProvider('archives')]
    public function test_what_nothing_refers_to_is_named_nowhere(string $archive): void
    {
        $found = $this->taken($archive);
        $store = TestStore::in($this->store());
        foreach ($found->findings as $finding) {
            if ($finding->code !== FindingCode::FileUnused || $found->manifest->get((string) $finding->path) === null
                || $found->manifest->get((string) $finding->path)->isFile() === false) {
                continue;
            }
            $name = basename((string) $finding->path);
            foreach ($found->manifest->files() as $file) {
                $isText = preg_match('/\.(?:html?|css|js|mjs|json|md|txt|svg)$/', $file->path->name()) === 1;
                if ($isText && $file->path->name() !== $name) {
                    $text = $store->text((string) $file->sha256);
                    $isNamed = preg_match('~(?<![\w-])'.preg_quote($name, '~').'(?![\w-])~', $text) === 1;
                    self::assertFalse($isNamed, "$file->path names $name");
                }
            }
        }
        self::assertNotSame([], $found->manifest->files());
    }

    private static string $store = '';

    /** @var array<string, Inspection> each is taken once for both tests */
    private static array $taken = [];

    public static function tearDownAfterClass(): void
    {
        self::$store === '' || self::remove(self::$store);
        [self::$store, self::$taken] = ['', []];
        parent::tearDownAfterClass();
    }

    private function store(): string
    {
        if (self::$store === '') {
            self::$store = ScratchDisk::path().'/cellarium-pages-'.bin2hex(random_bytes(6));
            mkdir(self::$store);
        }

        return self::$store;
    }

    private function taken(string $archive): Inspection
    {
        $file = dirname(__DIR__, 3)."/var/test/pages/$archive";
        self::assertFileExists($file, 'Run ./test once; it fetches the archives.');

        return self::$taken[$archive]
            ??= (new PackageIntake(TestStore::in($this->store()), new FixedClock))->take($file, $archive);
    }
}
