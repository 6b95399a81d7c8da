<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\HostsFile;
use Cellarium\Core\Connection\ListingReader;
use Cellarium\Core\Connection\MachineListing;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\WireName;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

final class MachineListingTest extends TestCase
{
    use Scratch;

    public function test_facts_are_read_and_the_directory_itself_left_out(): void
    {
        $entries = self::parse(
            "type=cdir;modify=20260101000000; /\r\nType=pdir; "
                ."..\r\ntype=file;size=12;modify=20260102030405.123;UNIX.mode=0100640; a; "
                ."b=c.txt\r\ntype=dir;unix.mode=0755;perm=el;  two leading blanks\r\ntype=OS.unix=slink:/etc; "
                ."l\r\ntype=dir; ..\r\ntype=file; caf\xe9\r\n",
        );
        self::assertSame(
            ['a; b=c.txt', ' two leading blanks', 'l', "caf\xe9"],
            array_map(static fn ($entry): string => WireName::toWire($entry->name), $entries),
        );
        self::assertSame(
            [EntryKind::File, EntryKind::Directory, EntryKind::Link, EntryKind::File],
            array_map(static fn ($entry) => $entry->kind, $entries),
        );
        self::assertSame(
            [12, gmmktime(3, 4, 5, 1, 2, 2026), 0640],
            [$entries[0]->size, $entries[0]->modified, $entries[0]->mode],
        );
    }

    /** @return iterable<array{string}> */
    public static function notUnderstood(): iterable
    {
        yield ['drwxr-xr-x 2 ftp ftp 4096 Nov 23 12:38 logs'];
        yield ['size=1; no type'];
        yield ['type=file;size=abc; x'];
        yield ['type=file;size=-1; x'];
        yield ['type=file;modify=yesterday; x'];
        yield ['type=file; a/b'];
        yield ["type=file; cut\0off"];
        yield ['type=file;nospace'];
    }

    #[DataProvider('notUnderstood')]
    public function test_what_is_not_understood_is_said_and_not_guessed(string $line): void
    {
        try {
            self::parse("type=file;size=1; good\r\n$line\r\n");
            self::fail('It was taken.');
        } catch (RemoteFailure $failure) {
            self::assertSame(FailureReason::NotUnderstood, $failure->reason);
        }
    }

    public function test_a_listing_cut_inside_its_last_line_is_no_listing(): void
    {
        foreach (
            [
                "type=file;size=1; a\r\ntype=file;size=2; index.ht",
                "type=file;size=1; a\r\ntype=fi",
                'type=file;size=1; a',
            ] as $cut
        ) {
            try {
                self::parse($cut);
                self::fail('It was taken.');
            } catch (RemoteFailure $failure) {
                self::assertSame(FailureReason::Incomplete, $failure->reason);
            }
        }
    }

    public function test_a_listing_that_never_ends_is_stopped_in_little_memory(): void
    {
        foreach (
            [new ConnectionSettings(mostEntries: 1000), new ConnectionSettings(mostListingBytes: 100_000)] as $settings
        ) {
            $reader = new ListingReader(new MachineListing('listing /x'), 'listing /x', $settings);
            $chunks = 0;
            $before = memory_get_usage();
            while ($reader->take(str_repeat('type=file;size=1; '.bin2hex((string) $chunks)."\r\n", 40))) {
                $chunks++;
            }
            self::assertLessThan(200, $chunks);
            self::assertLessThan(2_000_000, memory_get_usage() - $before);
            try {
                $reader->entries();
                self::fail('It was taken.');
            } catch (RemoteFailure $failure) {
                self::assertSame(FailureReason::TooMuch, $failure->reason);
            }
        }
    }

    /** @return list<RemoteEntry> */
    private static function parse(string $text): array
    {
        $reader = new ListingReader(new MachineListing('listing /x'), 'listing /x');
        foreach (str_split($text, 11) as $chunk) {
            $reader->take($chunk);
        }

        return $reader->entries();
    }

    public function test_names_come_from_the_hosts_file_first(): void
    {
        $file = $this->directory().'/hosts';
        file_put_contents($file, "# names\n192.0.2.7  One.example two.example # tail\n\n192.0.2.8 one.example\n");
        $names = new HostsFile($file);
        self::assertSame(['192.0.2.7', '192.0.2.8'], $names->addresses('one.example'));
        self::assertSame(['192.0.2.7'], $names->addresses('TWO.example'));
        self::assertSame(['127.0.0.1'], $names->addresses('127.0.0.1'));
        self::assertSame([], $names->addresses('nowhere.invalid'));
    }

    public function test_reasons_have_words_and_only_transient_ones_are_tried_again(): void
    {
        foreach (FailureReason::cases() as $reason) {
            self::assertNotSame('', $reason->sentence());
            self::assertStringEndsWith('.', $reason->nextStep());
        }
        self::assertFalse(FailureReason::SignInRefused->isTransient());
        self::assertTrue(FailureReason::Disconnected->isTransient());
    }
}
