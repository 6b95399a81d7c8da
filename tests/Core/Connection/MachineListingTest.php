<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\EntryKind;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\HostsFile;
use Cellarium\Core\Connection\MachineListing;
use Cellarium\Core\Connection\RemoteFailure;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

final class MachineListingTest extends TestCase
{
    use Scratch;

    public function test_facts_are_read_and_the_directory_itself_left_out(): void
    {
        $entries = MachineListing::parse("type=cdir;modify=20260101000000; /\r\nType=pdir; ..\r\ntype=file;size=12;modify=20260102030405.123;UNIX.mode=0100640; a; b=c.txt\r\ntype=dir;unix.mode=0755;perm=el;  two leading blanks\r\ntype=OS.unix=slink:/etc; l\r\n", 'a test');
        self::assertSame(['a; b=c.txt', ' two leading blanks', 'l'], array_map(static fn ($entry): string => $entry->name, $entries));
        self::assertSame([EntryKind::File, EntryKind::Directory, EntryKind::Link], array_map(static fn ($entry) => $entry->kind, $entries));
        self::assertSame([12, gmmktime(3, 4, 5, 1, 2, 2026), 0640], [$entries[0]->size, $entries[0]->modified, $entries[0]->mode]);
    }

    /** @return iterable<array{string}> */
    public static function notUnderstood(): iterable
    {
        yield ['drwxr-xr-x 2 ftp ftp 4096 Nov 23 12:38 logs'];
        yield ['size=1; no type'];
        yield ['type=file;size=abc; x'];
        yield ['type=file;size=-1; x'];
        yield ['type=file;modify=yesterday; x'];
        yield ["type=file; caf\xe9"];
        yield ['type=file;nospace'];
    }

    #[DataProvider('notUnderstood')]
    public function test_what_is_not_understood_is_said_and_not_guessed(string $line): void
    {
        try {
            MachineListing::parse("type=file;size=1; good\r\n$line\r\n", 'listing /x');
            self::fail('It was taken.');
        } catch (RemoteFailure $failure) {
            self::assertSame(FailureReason::NotUnderstood, $failure->reason);
        }
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
