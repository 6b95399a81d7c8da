<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\ListingReader;
use Cellarium\Core\Connection\MachineListing;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\WireName;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Where lines end, and what a line is that is no entry. */
final class ListingReaderTest extends TestCase
{
    /** @return iterable<string, array{string, list<string>, list<string>}> listing, names, and which may go on */
    public static function listings(): iterable
    {
        $line = static fn (string $name): string => "type=file;size=3; $name";
        yield 'by CRLF' => ["{$line('a')}\r\n{$line('b')}\r\n", ['a', 'b'], []];
        yield 'by LF' => ["{$line('a')}\n{$line('b')}\n", ['a', 'b'], []];
        yield 'a line end without CR belongs to the name' => ["{$line('c')}\r\n{$line("a\nb")}\r\n", ['c', "a\nb"], []];
        yield 'also where it comes first' => ["{$line("a\nb")}\r\n{$line('c')}\r\n", ["a\nb", 'c'], ['a']];
        yield 'a CR belongs to the name' => ["{$line("a\rb")}\r\n{$line('c')}\r\n", ["a\rb", 'c'], []];
        yield 'written as the end of a line' => ["{$line('a')}\r\nb\r\n{$line('c')}\r\n", ["a\nb", 'c'], ['a']];
        yield 'twice in one name' => ["{$line('x')}\n{$line('a')}\nb\nc\n", ['x', "a\nb\nc"], ['a']];
    }

    /**
     * @param  list<string>  $names
     * @param  list<string>  $doubted
     */
    #[DataProvider('listings')]
    public function test_names_are_read_whole(string $listing, array $names, array $doubted): void
    {
        foreach ([1, 7, 1000] as $size) {
            $reader = new ListingReader(new MachineListing('listing /'), 'listing /');
            foreach (str_split($listing, $size) as $chunk) {
                self::assertTrue($reader->take($chunk));
            }
            $wire = static fn (RemoteEntry $entry): string => WireName::toWire($entry->name);
            self::assertSame($doubted, array_map($wire, $reader->doubted()));
            if ($doubted !== []) {
                try {
                    $reader->entries();
                    self::fail('It was believed without asking the server.');
                } catch (RemoteFailure $failure) {
                    self::assertSame(FailureReason::NotUnderstood, $failure->reason);
                }
            }
            self::assertSame($names, array_map($wire, $reader->entriesWithNamesThatGoOn()), "in pieces of $size");
        }
    }

    /** @return iterable<string, array{string}> */
    public static function nonsense(): iterable
    {
        yield 'at the beginning' => ["oops\r\ntype=file;size=3; a\r\n"];
        yield 'longer than a name' => ["type=file;size=3; a\r\n".str_repeat('x', 300)."\r\n"];
        yield 'another entry that is not understood' => ["type=file;size=3; a\r\ntype=file;size=x; b\r\n"];
        yield 'another form of listing' => ["type=file;size=3; a\r\n-rw-r--r-- 1 a b 5 Nov 20 15:00 b\r\n"];
        yield 'cut in the middle' => ["type=file;size=3; a\r\ntype=file;si"];
    }

    #[DataProvider('nonsense')]
    public function test_what_is_no_part_of_a_name_is_not_understood(string $listing): void
    {
        $reader = new ListingReader(new MachineListing('listing /'), 'listing /');
        $reader->take($listing);
        self::assertSame([], $reader->doubted(), 'it is not even asked for');
        $this->expectException(RemoteFailure::class);
        $reader->entries();
    }
}
