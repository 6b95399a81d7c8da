<?php

declare(strict_types=1);

namespace Tests\Core\Package;

use Cellarium\Core\Package\ArchiveLimits;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageRefused;
use Cellarium\Core\Package\RefusalReason;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\Scratch;
use Tests\Support\TestStore;
use Tests\Support\Zips;

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
            TestStore::in("$this->scratchDirectory/store"),
            new FixedClock,
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
        return array_map(static fn (PackageFinding $finding): string => $finding->code->value, $found->findings);
    }

    public function test_a_wrapper_is_lifted_and_contents_are_in_the_store(): void
    {
        $found = $this->take(
            $this->zip(['site-1.0/' => '', 'site-1.0/index.html' => 'hello', 'site-1.0/img/a.svg' => 'a']),
            'hostel-2.3.1.zip',
        );
        self::assertSame(
            ['hostel', '2.3.1', 'site-1.0', 'index.html'],
            [$found->name, $found->version, $found->wrapper, $found->startPage()],
        );
        self::assertSame(
            ['img', 'img/a.svg', 'index.html'],
            array_map(static fn ($entry): string => $entry->path->toString(), $found->manifest->all()),
        );
        self::assertSame(
            'hello',
            TestStore::in("$this->scratchDirectory/store")->text((string) $found->manifest->get('index.html')?->sha256),
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

    public function test_a_tar_of_several_gzip_members_and_padding_is_read(): void
    {
        $tar = (string) gzdecode((string) file_get_contents(self::wholeTar($this->scratchDirectory)));
        $parts = array_map(gzencode(...), str_split($tar, 7000));
        $file = self::written("$this->scratchDirectory/x.tar.gz", implode('', $parts).str_repeat("\0", 700));
        self::assertCount(9, $this->take($file, 'x.tar.gz')->manifest->files());
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
        foreach (['gnu z', 'posix J', 'ustar z', 'gnu '] as $how) {
            [$format, $packing] = explode(' ', $how);
            exec(
                'tar --format='
                    .$format
                    .' -C '
                    .escapeshellarg($this->scratchDirectory)
                    ." -c{$packing}f "
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
}
