<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** The whole graph of folders, drawn from the code. */
final class RoomsTest extends TestCase
{
    use Scratch;

    private const ROOT = __DIR__.'/../..';

    /** What the core knows beside PHP and itself: the PSR interfaces and a few libraries; no framework, no shell. */
    private const KNOWN_TO_CORE = [
        'Random', 'Psr', 'phpseclib3', 'League\Flysystem', 'Aws', 'Sabberworm\CSS', 'Masterminds',
        'SebastianBergmann\Diff', 'Opis\JsonSchema', 'Symfony\Component\Yaml', 'ParagonIE\ConstantTime',
    ];

    /** What the stand-in may name: it shares nothing with the application but sockets. */
    private const KNOWN_TO_STANDIN = ['Amp', 'Revolt'];

    /** @var array<string, ClassGraph> by house; each is read once, by the first test that needs it */
    private static array $graphs = [];

    /** @return iterable<string, array{string, array<string, list<string>>}> directory, and its rooms */
    public static function houses(): iterable
    {
        yield 'core' => ['core', Rooms::CORE];
        yield 'app' => ['app', Rooms::APP];
    }

    public static function tearDownAfterClass(): void
    {
        self::$graphs = [];
        parent::tearDownAfterClass();
    }

    private static function graph(string $house): ClassGraph
    {
        $namespaces = ['core' => 'Cellarium\\Core\\', 'app' => 'App\\', 'standin/src' => 'Cellarium\\Standin\\'];

        return self::$graphs[$house] ??= ClassGraph::ofDirectory(self::ROOT."/$house", $namespaces[$house]);
    }

    #[DataProvider('houses')]
    public function test_no_circle_of_folders(string $house): void
    {
        self::assertSame([], self::graph($house)->circle(), 'These folders form a circle.');
    }

    /** @param  array<string, list<string>>  $rooms */
    #[DataProvider('houses')]
    public function test_every_folder_has_a_line_and_uses_only_folders_above_it(string $house, array $rooms): void
    {
        self::assertEqualsCanonicalizing(array_keys($rooms), self::graph($house)->rooms());
        $above = [];
        foreach ($rooms as $room => $may) {
            self::assertSame([], array_diff($may, $above), "$room may use what stands below it.");
            $above[] = $room;
        }
    }

    /** @param  array<string, list<string>>  $rooms */
    #[DataProvider('houses')]
    public function test_what_is_used_and_what_may_be_used_are_the_same(string $house, array $rooms): void
    {
        $between = self::graph($house)->between();
        foreach ($rooms as $room => $may) {
            $used = $between[$room] ?? [];
            self::assertSame([], array_values(array_diff_key($used, array_flip($may))), "$room uses what it may not.");
            self::assertSame([], array_values(array_diff($may, array_keys($used))), "$room may use what it does not.");
        }
    }

    public function test_core_and_standin_name_nothing_of_the_application_or_its_framework(): void
    {
        self::assertSame([], self::graph('core')->outside(self::KNOWN_TO_CORE));
        self::assertSame([], self::graph('standin/src')->outside(self::KNOWN_TO_STANDIN));
    }

    /** `WRITE_DOCUMENTS=1 vendor/bin/phpunit tests/Architecture/RoomsTest.php` draws it anew. */
    public function test_the_drawing_shows_the_rooms_as_they_are(): void
    {
        $file = self::ROOT.'/docs/rooms.svg';
        getenv('WRITE_DOCUMENTS') !== '1' || file_put_contents($file, RoomsDrawing::svg());

        self::assertStringEqualsFile($file, RoomsDrawing::svg());
    }

    public function test_a_circle_is_found_and_names_its_classes(): void
    {
        $directory = $this->directory();
        $this->put("$directory/Shelf/Jar.php", 'namespace A\Shelf; final class Jar { public \A\Key\Ring $ring; }');
        $this->put("$directory/Key/Ring.php", 'namespace A\Key; use A\Door\Lock; final class Ring extends Lock {}');
        $this->put("$directory/Door/Lock.php", 'namespace A\Door; class Lock { function f() { \A\Shelf\Jar::g(); } }');
        $this->put("$directory/Door/Hinge.php", 'namespace A\Door; class Hinge extends Lock {}');

        self::assertSame(
            ['Door\Lock uses Shelf\Jar', 'Shelf\Jar uses Key\Ring', 'Key\Ring uses Door\Lock'],
            ClassGraph::ofDirectory($directory, 'A\\')->circle(),
        );
    }

    public function test_a_circle_between_folders_of_one_room_is_found(): void
    {
        $directory = $this->directory();
        mkdir("$directory/Shelf");
        $this->put("$directory/Shelf/Jar.php", 'namespace A\Shelf; final class Jar { public Lid\Wax $wax; }');
        $this->put("$directory/Shelf/Lid/Wax.php", 'namespace A\Shelf\Lid; use A\Shelf\Jar; final class Wax {}');

        self::assertSame(
            ['Shelf\Jar uses Shelf\Lid\Wax', 'Shelf\Lid\Wax uses Shelf\Jar'],
            ClassGraph::ofDirectory($directory, 'A\\')->circle(),
        );
        self::assertSame(
            ['A\Shelf\Jar uses A\Shelf\Lid\Wax', 'A\Shelf\Lid\Wax uses A\Shelf\Jar'],
            ClassGraph::ofDirectory($directory, 'B\\')->outside([]),
        );
    }

    private function put(string $file, string $code): void
    {
        is_dir(dirname($file)) || mkdir(dirname($file));
        file_put_contents($file, "<?php $code");
    }
}
