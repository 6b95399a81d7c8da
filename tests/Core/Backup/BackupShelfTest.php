<?php

declare(strict_types=1);

namespace Tests\Core\Backup;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Storage\StoreFailure;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** Lists of backups: kept, claimed, moved aside; what a kill leaves in between is told from what was lost. */
final class BackupShelfTest extends TestCase
{
    use Scratch;

    private static function manifest(int $files = 3): Manifest
    {
        return Manifest::fromEntries(array_map(static fn (int $number): ManifestEntry => new ManifestEntry(
            RelativePath::fromString("page-$number.html"),
            EntryKind::File,
            10,
            sha256: hash('sha256', "page $number"),
        ), range(1, $files)));
    }

    public function test_a_list_is_read_before_and_after_it_is_claimed_and_counts_from_then_on(): void
    {
        $shelf = new BackupShelf($this->directory());
        $name = $shelf->keep(self::manifest(), new \DateTimeImmutable('2026-11-02 10:00'));
        self::assertSame([[], [$name]], [$shelf->names(), $shelf->unclaimed()]);
        self::assertCount(3, $shelf->manifest($name)->files());
        $shelf->claim($name);
        $shelf->claim($name);
        self::assertSame([[$name], []], [$shelf->names(), $shelf->unclaimed()]);
        self::assertTrue($shelf->holds($name, self::manifest()));
    }

    public function test_what_was_moved_aside_is_no_list_any_more_and_goes_for_good_after_its_time(): void
    {
        $directory = $this->directory();
        $shelf = new BackupShelf($directory);
        $name = $shelf->keep(self::manifest(), new \DateTimeImmutable);
        self::assertTrue($shelf->moveAside($name));
        self::assertFalse($shelf->moveAside($name));
        self::assertSame([[], [], null], [$shelf->names(), $shelf->unclaimed(), $shelf->keptAt($name)]);
        self::assertSame(0, $shelf->deleteAside(time() - 60));
        self::assertSame(1, $shelf->deleteAside(time() + 60));
        self::assertSame([], glob("$directory/aside/*"));
    }

    public function test_out_of_a_list_that_was_cut_what_can_be_read_is_salvaged(): void
    {
        $directory = $this->directory();
        $shelf = new BackupShelf($directory);
        $name = $shelf->keep(self::manifest(400), new \DateTimeImmutable);
        $shelf->claim($name);
        self::assertFalse($shelf->setAsideDamaged($name), 'it can be read');
        $file = "$directory/$name.jsonl.gz";
        file_put_contents($file, substr((string) file_get_contents($file), 0, -3000));
        try {
            $shelf->manifest($name);
            self::fail('It was read.');
        } catch (StoreFailure $failure) {
            self::assertStringContainsString($name, $failure->getMessage());
        }
        $whole = array_map(
            static fn (ManifestEntry $file): string => (string) $file->sha256,
            self::manifest(400)->files(),
        );
        $salvaged = iterator_to_array($shelf->salvaged($name), false);
        self::assertGreaterThan(100, count($salvaged));
        self::assertSame(array_slice($whole, 0, count($salvaged)), $salvaged);
        self::assertTrue($shelf->setAsideDamaged($name));
        self::assertSame([], $shelf->names());
        self::assertSame($salvaged, iterator_to_array($shelf->salvaged(), false), 'also once it is set aside');
        self::assertFalse($shelf->setAsideDamaged($name), 'what is not there at all is not damaged');
    }
}
