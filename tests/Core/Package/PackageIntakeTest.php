<?php

declare(strict_types=1);

namespace Tests\Core\Package;

use Cellarium\Core\Package\ArchiveLimits;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\PackageFinding;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageRefused;
use Cellarium\Core\Package\RefusalReason;
use Cellarium\Core\Storage\FileContentStore;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;
use Tests\Support\Zips;
use ZipArchive;

final class PackageIntakeTest extends TestCase
{
    use Scratch;

    private string $scratchDirectory;

    protected function setUp(): void
    {
        $this->scratchDirectory = $this->directory();
    }

    private function take(string $file, string $name = 'site-1.0.zip', ?ArchiveLimits $limits = null): Inspection
    {
        return (new PackageIntake(
            new FileContentStore("$this->scratchDirectory/store"),
            $limits ?? new ArchiveLimits(),
        ))->take($file, $name);
    }

    /** @param  array<string, string>  $files */
    private function zip(array $files, ?\Closure $change = null): string
    {
        return Zips::make("$this->scratchDirectory/site.zip", $files, $change);
    }

    /** @return list<string> */
    private static function codes(Inspection $found): array
    {
        return array_map(static fn (PackageFinding $finding): string => $finding->code, $found->findings);
    }

    public function test_a_wrapper_is_lifted_and_contents_are_in_the_store(): void
    {
        $found = $this->take(
            $this->zip(['site-1.0/' => '', 'site-1.0/index.html' => 'hello', 'site-1.0/img/a.svg' => 'a']),
            'hostel-2.3.1.zip',
        );
        self::assertSame(
            ['hostel', '2.3.1', 'site-1.0', 'index.html'],
            [$found->name, $found->version, $found->wrapper, $found->startPage],
        );
        self::assertSame(
            ['img', 'img/a.svg', 'index.html'],
            array_map(static fn ($entry): string => $entry->path->toString(), $found->manifest->all()),
        );
        self::assertSame(
            'hello',
            file_get_contents(
                (new FileContentStore("$this->scratchDirectory/store"))->file(
                    (string) $found->manifest->get('index.html')?->sha256,
                ),
            ),
        );
        self::assertFalse($found->stops());
    }

    public function test_wrappers_in_wrappers_are_lifted_but_a_folder_beside_a_file_is_the_sites_own(): void
    {
        self::assertSame('a/b', $this->take($this->zip(['a/b/index.html' => 'x', 'a/b/c/d.css' => 'y']))->wrapper);
        $own = $this->take($this->zip(['index.html' => 'x', 'a/b.css' => 'y']));
        self::assertNull($own->wrapper);
        self::assertNotNull($own->manifest->get('a/b.css'));
    }

    public function test_without_a_start_page_it_stops_and_says_where_the_nearest_is(): void
    {
        $found = $this->take($this->zip(['readme.txt' => 'r', 'public/index.html' => 'x']));
        self::assertTrue($found->stops());
        self::assertStringContainsString('public/index.html', $found->findings[0]->message);
    }

    public function test_what_a_person_should_know_is_found(): void
    {
        $found = $this->take(
            $this->zip([
                'w/index.html' => 'x',
                'w/index.htm' => 'y',
                'w/Logo.svg' => '1',
                'w/logo.svg' => '2',
                '__MACOSX/w/._index.html' => 'junk',
                'w/.DS_Store' => 'junk',
            ]),
        );
        self::assertSame(['case_twins', 'several_start_pages', 'wrapper_lifted', 'leftovers'], self::codes($found));
        self::assertCount(4, $found->manifest->files());
    }

    public function test_backslashes_are_taken_as_separators(): void
    {
        self::assertNotNull(
            $this->take($this->zip(['index.html' => 'x', 'img\\a.svg' => 'y']))->manifest->get('img/a.svg'),
        );
    }

    /** @return iterable<string, array{\Closure(string): string, RefusalReason}> */
    public static function hostile(): iterable
    {
        yield 'a letter' => [
            static fn (string $dir): string => self::written("$dir/x.zip", 'Dear Rowan'),
            RefusalReason::NotAnArchive,
        ];
        yield 'nothing at all' => [
            static fn (string $dir): string => self::written("$dir/x.zip", ''),
            RefusalReason::NotAnArchive,
        ];
        yield 'an empty zip' => [
            static fn (string $dir): string => self::written("$dir/x.zip", "PK\x05\x06".str_repeat("\0", 18)),
            RefusalReason::Empty,
        ];
        yield 'only directories' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", ['a/' => '', 'a/b/' => '']),
            RefusalReason::Empty,
        ];
        yield 'cut in the middle' => [
            static fn (string $dir): string => self::written(
                "$dir/y.zip",
                substr(
                    (string) file_get_contents(Zips::make("$dir/x.zip", ['index.html' => random_bytes(5000)])),
                    0,
                    3000,
                ),
            ),
            RefusalReason::NotAnArchive,
        ];
        yield 'a flipped byte' => [
            static fn (string $dir): string => self::flipped(
                Zips::make("$dir/x.zip", ['index.html' => random_bytes(5000)]),
            ),
            RefusalReason::Broken,
        ];
        yield 'climbing out' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", ['index.html' => 'x', '../../evil.php' => 'x']),
            RefusalReason::Leaves,
        ];
        yield 'climbing out with backslashes' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", ['index.html' => 'x', '..\\evil.php' => 'x']),
            RefusalReason::Leaves,
        ];
        yield 'an absolute name' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", ['/etc/passwd' => 'x']),
            RefusalReason::Leaves,
        ];
        yield 'a drive' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", ['C:/evil.php' => 'x']),
            RefusalReason::Leaves,
        ];
        yield 'a link' => [
            static fn (string $dir): string => Zips::make(
                "$dir/x.zip",
                ['index.html' => 'x', 'l' => '/etc/passwd'],
                static fn (ZipArchive $zip) => $zip->setExternalAttributesName(
                    'l',
                    ZipArchive::OPSYS_UNIX,
                    0120777 << 16,
                ),
            ),
            RefusalReason::Link,
        ];
        yield 'encrypted' => [
            static fn (string $dir): string => Zips::make(
                "$dir/x.zip",
                ['index.html' => 'x'],
                static fn (ZipArchive $zip) => $zip->setEncryptionName('index.html', ZipArchive::EM_AES_256, 'word'),
            ),
            RefusalReason::Encrypted,
        ];
        yield 'ten gigabytes in one megabyte' => [
            static fn (string $dir): string => Zips::bomb("$dir/x.zip", 20, 500),
            RefusalReason::Bomb,
        ];
        yield 'a smaller bomb, by its ratio' => [
            static fn (string $dir): string => Zips::bomb("$dir/x.zip", 1, 50),
            RefusalReason::Bomb,
        ];
        yield 'a tar that climbs' => [
            static fn (string $dir): string => self::tar("$dir/x.tar.gz", [
                self::header('../evil.php', 1).str_pad('x', 512, "\0"),
            ]),
            RefusalReason::Leaves,
        ];
        yield 'a tar with a link' => [
            static fn (string $dir): string => self::tar("$dir/x.tar.gz", [self::header('l', 0, '2')]),
            RefusalReason::Link,
        ];
        yield 'a tar cut short' => [
            static fn (string $dir): string => self::tar("$dir/x.tar.gz", [
                self::header('index.html', 5000),
                'only this',
            ]),
            RefusalReason::Broken,
        ];
        yield 'a tar without its end' => [
            static fn (string $dir): string => self::written(
                "$dir/x.tar.gz",
                (string) gzencode(self::header('index.html', 5).str_pad('hello', 512, "\0")),
            ),
            RefusalReason::Broken,
        ];
        yield 'a tar.gz cut between two entries' => [
            static fn (string $dir): string => self::cutTar($dir, 0.7),
            RefusalReason::Broken,
        ];
        yield 'a tar.gz without its last bytes' => [
            static fn (string $dir): string => self::cutTar($dir, 0.9999),
            RefusalReason::Broken,
        ];
        yield 'a tar.gz with something behind it' => [
            static fn (string $dir): string => self::written(
                "$dir/x.tar.gz",
                file_get_contents(self::wholeTar($dir)).'and more',
            ),
            RefusalReason::Broken,
        ];
        yield 'a name with a NUL' => [
            static fn (string $dir): string => self::written(
                "$dir/x.zip",
                str_replace(
                    'evil.php_.jpg',
                    "evil.php\0.jpg",
                    (string) file_get_contents(Zips::make("$dir/x.zip", ['index.html' => 'x', 'evil.php_.jpg' => 'x'])),
                ),
            ),
            RefusalReason::BadName,
        ];
        yield 'a name of our own kind' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", [
                'index.html' => 'x',
                'img/.cellarium-a1-7.part' => 'x',
            ]),
            RefusalReason::OurName,
        ];
        yield 'a name that stands for bytes' => [
            static fn (string $dir): string => Zips::make("$dir/x.zip", [
                'index.html' => 'x',
                "\u{10FEFC}.html" => 'x',
            ]),
            RefusalReason::BadName,
        ];
        yield 'gzip that is no tar' => [
            static fn (string $dir): string => self::written(
                "$dir/x.tar.gz",
                (string) gzencode(str_repeat('not a tar ', 100)),
            ),
            RefusalReason::NotAnArchive,
        ];
        yield 'a gzip bomb' => [
            static fn (string $dir): string => self::written(
                "$dir/x.tar.gz",
                (string) gzencode(self::header('index.html', 40_000_000).str_repeat("\0", 40_000_000)),
            ),
            RefusalReason::Bomb,
        ];
    }

    private static function wholeTar(string $dir): string
    {
        @mkdir("$dir/whole");
        for ($number = 0; $number < 8; $number++) {
            file_put_contents("$dir/whole/$number.bin", random_bytes(4000));
        }
        file_put_contents("$dir/whole/index.html", 'hello');
        exec(
            'tar -C '.escapeshellarg("$dir/whole").' -czf '.escapeshellarg("$dir/whole.tar.gz").' . 2>&1',
            $said,
            $code,
        );
        self::assertSame(0, $code, implode("\n", $said));

        return "$dir/whole.tar.gz";
    }

    private static function cutTar(string $dir, float $share): string
    {
        $bytes = (string) file_get_contents(self::wholeTar($dir));

        return self::written("$dir/x.tar.gz", substr($bytes, 0, (int) (strlen($bytes) * $share)));
    }

    public function test_a_tar_of_several_gzip_members_and_padding_is_read(): void
    {
        $tar = (string) gzdecode((string) file_get_contents(self::wholeTar($this->scratchDirectory)));
        $parts = array_map(gzencode(...), str_split($tar, 7000));
        $file = self::written("$this->scratchDirectory/x.tar.gz", implode('', $parts).str_repeat("\0", 700));
        self::assertCount(9, $this->take($file, 'x.tar.gz')->manifest->files());
    }

    #[DataProvider('hostile')]
    public function test_hostile_and_broken_archives_are_refused_with_a_reason(
        \Closure $make,
        RefusalReason $reason,
    ): void {
        $file = $make($this->scratchDirectory);
        try {
            $this->take($file);
            self::fail('It was taken.');
        } catch (PackageRefused $refused) {
            self::assertSame($reason, $refused->reason, $refused->getMessage());
            self::assertMatchesRegularExpression('/\.\z/', $refused->getMessage());
        }
        self::assertFileDoesNotExist(dirname($this->scratchDirectory).'/evil.php');
    }

    public function test_a_size_that_lies_is_caught_while_unpacking(): void
    {
        $file = $this->zip(['index.html' => str_repeat('x', 200_000)]);
        $data = (string) file_get_contents($file);
        // The declared size, in the local header and in the directory, becomes ten bytes.
        file_put_contents($file, str_replace(pack('V', 200_000), pack('V', 10), $data));
        $this->expectException(PackageRefused::class);
        $this->take($file);
    }

    public function test_limits_are_settings(): void
    {
        $file = $this->zip(['index.html' => str_repeat('x', 5000), 'b' => 'y']);
        foreach (
            [
                [new ArchiveLimits(entries: 1), RefusalReason::TooManyEntries],
                [new ArchiveLimits(totalBytes: 4000), RefusalReason::TooLarge],
                [new ArchiveLimits(ratio: 2, ratioFrom: 10), RefusalReason::Bomb],
            ] as [$limits, $reason]
        ) {
            try {
                $this->take($file, 'x.zip', $limits);
                self::fail('It was taken.');
            } catch (PackageRefused $refused) {
                self::assertSame($reason, $refused->reason);
            }
        }
    }

    public function test_tar_archives_of_other_programs_are_read(): void
    {
        $long = str_repeat('long-name-', 15).'.html';
        mkdir("$this->scratchDirectory/w/img", 0755, true);
        foreach (
            ['w/index.html' => 'hello', "w/$long" => 'l', 'w/img/ä.svg' => random_bytes(70000)] as $path => $text
        ) {
            file_put_contents("$this->scratchDirectory/$path", $text);
        }
        foreach (['gnu', 'posix', 'ustar'] as $format) {
            exec(
                'tar --format='
                    .$format
                    .' -C '
                    .escapeshellarg($this->scratchDirectory)
                    .' -czf '
                    .escapeshellarg("$this->scratchDirectory/x.tar.gz")
                    .' w 2>&1',
                $said,
                $code,
            );
            if ($code !== 0) {
                self::assertSame('ustar', $format, implode("\n", $said));

                continue;
            }
            $found = $this->take("$this->scratchDirectory/x.tar.gz", 'x-1.tar.gz');
            self::assertSame(['w', '1'], [$found->wrapper, $found->version], $format);
            self::assertSame(1, $found->manifest->get($long)?->size);
            self::assertSame(
                hash_file('sha256', "$this->scratchDirectory/w/img/ä.svg"),
                $found->manifest->get('img/ä.svg')?->sha256,
            );
        }
    }

    private static function written(string $file, string $bytes): string
    {
        file_put_contents($file, $bytes);

        return $file;
    }

    private static function flipped(string $file): string
    {
        $data = (string) file_get_contents($file);
        $data[2500] = $data[2500] === 'x' ? 'y' : 'x';

        return self::written($file, $data);
    }

    private static function header(string $name, int $size, string $kind = '0'): string
    {
        $header = str_pad($name, 100, "\0")
            .sprintf(
                "%07o\0%07o\0%07o\0%011o\0%011o\0",
                0644,
                0,
                0,
                $size,
                0,
            )
            .'        '
            .$kind
            .str_repeat("\0", 100)
            ."ustar\x0000";
        $header = str_pad($header, 512, "\0");

        return substr_replace(
            $header,
            sprintf("%06o\0 ", array_sum(array_map(ord(...), str_split($header)))),
            148,
            8,
        );
    }

    /** @param  list<string>  $blocks */
    private static function tar(string $file, array $blocks): string
    {
        return self::written($file, (string) gzencode(implode('', $blocks)));
    }
}
