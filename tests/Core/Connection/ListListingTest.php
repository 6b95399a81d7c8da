<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\ListingReader;
use Cellarium\Core\Connection\ListListing;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\WireName;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Lines as servers send them, with what has misled others. */
final class ListListingTest extends TestCase
{
    private const NOW = 1_795_392_000; // 2026-11-23 00:00 UTC

    /**
     * @return iterable<string, array{string, string, EntryKind, int|null, int|null, string}> line, name, kind,
     *     size, mode, time
     */
    public static function lines(): iterable
    {
        yield 'a file' => [
            '-rw-r-----   1 ftp      web          1234 Nov 20 15:30 index.html',
            'index.html',
            EntryKind::File,
            1234,
            0640,
            '2026-11-20 15:30',
        ];
        yield 'a directory of another year' => [
            'drwxr-xr-x   2 1001 1001 4096 Jan  3  2025 htdocs',
            'htdocs',
            EntryKind::Directory,
            null,
            0755,
            '2025-01-03 00:00',
        ];
        yield 'without a year, in the year before' => [
            '-rw-r--r-- 1 a b 5 Dec 24 08:15 x',
            'x',
            EntryKind::File,
            5,
            0644,
            '2025-12-24 08:15',
        ];
        yield 'without a year, tomorrow in another zone' => [
            '-rw-r--r-- 1 a b 5 Nov 23 13:00 x',
            'x',
            EntryKind::File,
            5,
            0644,
            '2026-11-23 13:00',
        ];
        yield 'without a year, on a leap day' => [
            '-rw-r--r-- 1 a b 5 Feb 29 08:15 x',
            'x',
            EntryKind::File,
            5,
            0644,
            '2024-02-29 08:15',
        ];
        yield 'no group' => [
            '-rw-r--r-- 1 owner 77 Nov 20 15:30 no group.txt',
            'no group.txt',
            EntryKind::File,
            77,
            0644,
            '2026-11-20 15:30',
        ];
        yield 'a day in ISO 8601' => [
            '-rw-r--r-- 1 a b 5 2026-02-03 04:05 x',
            'x',
            EntryKind::File,
            5,
            0644,
            '2026-02-03 04:05',
        ];
        yield 'an access list' => [
            '-rw-r--r--+ 1 a b 5 Nov 20 15:30 x',
            'x',
            EntryKind::File,
            5,
            0644,
            '2026-11-20 15:30',
        ];
        yield 'leading blanks' => [
            '-rw-r--r-- 1 a b 5 Nov 20 15:30   two blanks',
            '  two blanks',
            EntryKind::File,
            5,
            0644,
            '2026-11-20 15:30',
        ];
        yield 'a colon at the end' => [
            '-rw-r--r-- 1 a b 5 Nov 20 15:30 trailing:',
            'trailing:',
            EntryKind::File,
            5,
            0644,
            '2026-11-20 15:30',
        ];
        yield 'blank and dot at the end' => [
            '-rw-r--r-- 1 a b 5 Nov 20 15:30 name .',
            'name .',
            EntryKind::File,
            5,
            0644,
            '2026-11-20 15:30',
        ];
        yield 'an arrow in a file' => [
            '-rw-r--r-- 1 a b 5 Nov 20 15:30 a -> b',
            'a -> b',
            EntryKind::File,
            5,
            0644,
            '2026-11-20 15:30',
        ];
        yield 'a link' => [
            'lrwxrwxrwx 1 a b 5 Nov 20 15:30 current -> releases/7',
            'current',
            EntryKind::Link,
            null,
            0777,
            '2026-11-20 15:30',
        ];
        yield 'sticky' => [
            'drwxrwxrwt 2 a b 5 Nov 20 15:30 tmp',
            'tmp',
            EntryKind::Directory,
            null,
            01777,
            '2026-11-20 15:30',
        ];
        yield 'set user' => [
            '-rwsr-xr-x 1 a b 5 Nov 20 15:30 run',
            'run',
            EntryKind::File,
            5,
            04755,
            '2026-11-20 15:30',
        ];
        yield 'set without run' => [
            '-rwSr-Sr-T 1 a b 5 Nov 20 15:30 odd',
            'odd',
            EntryKind::File,
            5,
            07644,
            '2026-11-20 15:30',
        ];
        yield 'a device' => [
            'brw-rw---- 1 a b 8,  1 Nov 20 15:30 sda1',
            'sda1',
            EntryKind::Other,
            null,
            0660,
            '2026-11-20 15:30',
        ];
        yield 'digits' => [
            'drwxr-xr-x 2 a b 5 Nov 20 15:30 2026',
            '2026',
            EntryKind::Directory,
            null,
            0755,
            '2026-11-20 15:30',
        ];
        yield 'DIR, a file' => [
            '11-20-26  03:30PM                 1234 index.html',
            'index.html',
            EntryKind::File,
            1234,
            null,
            '2026-11-20 15:30',
        ];
        yield 'DIR, midnight' => [
            '11-20-26  12:05AM                    0 empty file.txt',
            'empty file.txt',
            EntryKind::File,
            0,
            null,
            '2026-11-20 00:05',
        ];
        yield 'DIR, four digits and 24 hours' => [
            '11-20-2026  15:30                   9 x',
            'x',
            EntryKind::File,
            9,
            null,
            '2026-11-20 15:30',
        ];
        yield 'DIR, a directory' => [
            '01-03-25  08:00AM       <DIR>          wwwroot',
            'wwwroot',
            EntryKind::Directory,
            null,
            null,
            '2025-01-03 08:00',
        ];
        yield 'DIR, a directory with leading blanks' => [
            '01-03-25  08:00AM       <DIR>            two',
            '  two',
            EntryKind::Directory,
            null,
            null,
            '2025-01-03 08:00',
        ];
    }

    /** @return list<RemoteEntry> */
    private static function parse(string $text): array
    {
        $reader = new ListingReader(new ListListing('listing /www', self::NOW), 'listing /www');
        foreach (str_split($text, 7) as $chunk) {
            $reader->take($chunk);
        }

        return $reader->entries();
    }

    #[DataProvider('lines')]
    public function test_a_line_is_read(
        string $line,
        string $name,
        EntryKind $kind,
        ?int $size,
        ?int $mode,
        string $time,
    ): void {
        self::assertEquals(
            [
                new RemoteEntry(
                    $name,
                    $kind,
                    $size,
                    (int) strtotime("$time UTC"),
                    $mode,
                    false,
                    $kind === EntryKind::Link && str_contains($line, ' -> ') ? 'releases/7' : null,
                ),
            ],
            self::parse("$line\r\n"),
        );
    }

    public function test_a_link_ends_where_its_size_says(): void
    {
        [$link] = self::parse("lrwxrwxrwx 1 a b 6 Nov 20 15:30 a -> b -> c\r\n");
        self::assertSame(['a', 'b -> c'], [$link->name, $link->target]);
    }

    public function test_a_name_that_is_no_text_keeps_its_bytes(): void
    {
        [$entry] = self::parse("-rw-r--r-- 1 a b 5 Nov 20 15:30 caf\xe9\r\n");
        self::assertSame("caf\xe9", WireName::toWire($entry->name));
    }

    public function test_a_whole_listing_leaves_out_its_total_and_the_dots(): void
    {
        $names = array_map(
            static fn (RemoteEntry $entry): string => $entry->name,
            self::parse(
                "total 12\r\ndrwxr-xr-x 2 a b 5 Nov 20 15:30 .\r\ndrwxr-xr-x 2 a b 5 Nov 20 15:30 ..\r\n-rw-r--r-- 1 "
                    ."a b 5 Nov 20 15:30 .htaccess\r\n",
            ),
        );
        self::assertSame(['.htaccess'], $names);
        self::assertSame([], self::parse("total 0\r\n"));
        self::assertSame([], self::parse(''));
    }

    /** @return iterable<string, array{string}> */
    public static function misfits(): iterable
    {
        $good = '-rw-r--r-- 1 a b 5 Nov 20 15:30 x';
        yield 'words' => ['cannot open directory'];
        yield 'words after a good line' => ["$good\r\nls: y: Permission denied"];
        yield 'two styles' => ["$good\r\n11-20-26  03:30PM  1234 index.html"];
        yield 'two arrows' => ['lrwxrwxrwx 1 a b 5 Nov 20 15:30 a -> b -> c'];
        yield 'no such day' => ['-rw-r--r-- 1 a b 5 Nov 31 2025 x'];
        yield 'no such month' => ['-rw-r--r-- 1 a b 5 Brum 11 2025 x'];
        yield 'a path' => ['-rw-r--r-- 1 a b 5 Nov 20 15:30 ../x'];
        yield 'an owner with a blank' => ['-rw-r--r-- 1 Domain Users of it 5 Nov 20 15:30 x'];
    }

    #[DataProvider('misfits')]
    public function test_what_is_not_understood_is_reported(string $text): void
    {
        try {
            self::parse("$text\r\n");
            self::fail('It was taken for a listing.');
        } catch (RemoteFailure $failure) {
            self::assertSame(FailureReason::NotUnderstood, $failure->reason);
        }
    }
}
