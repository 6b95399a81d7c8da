<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\File\PrivateName;
use Cellarium\Core\File\Provenance;
use Cellarium\Core\File\Rights;
use Cellarium\Core\File\VisitorsGet;
use Cellarium\Core\File\WorkingCopy;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\WebAnswer;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is told of a single file: where it comes from, what its rights mean, what visitors get. */
final class FileFactsTest extends TestCase
{
    private static function entry(
        string $name,
        int $size = 1,
        ?int $modified = 1,
        EntryKind $kind = EntryKind::File,
    ): ManifestEntry {
        return new ManifestEntry(RelativePath::fromString($name), $kind, $size, $modified);
    }

    public function test_a_file_comes_from_whoever_left_it_as_it_is(): void
    {
        $now = self::entry('a.html', 5, 100);
        $same = self::entry('a.html', 5, 100);
        $other = self::entry('a.html', 5, 99);

        $cases = [
            [Provenance::Package, true, $same, null],
            [Provenance::ChangedSince, true, $other, null],
            [Provenance::ByHand, true, $other, $same],
            [Provenance::ChangedSince, true, $other, $other],
            [Provenance::ChangedSince, false, null, $other],
            [Provenance::NotOurs, false, $same, null],
        ];
        foreach ($cases as [$from, $isBrought, $left, $byHand]) {
            self::assertSame($from, Provenance::fromEntries($now, $isBrought, $left, $byHand));
        }
    }

    public function test_rights_are_read_from_digits_and_mended_as_little_as_will_do(): void
    {
        self::assertSame(0644, Rights::parse('644'));
        self::assertSame(01777, Rights::parse('1777'));
        foreach (['64', '648', '00644', 'rw-', ''] as $none) {
            self::assertNull(Rights::parse($none), $none);
        }
        $opened = static fn (int $mode, EntryKind $kind): ?int => (new Rights($mode, $kind))->opened();
        self::assertSame(0644, $opened(0600, EntryKind::File));
        self::assertNull($opened(0644, EntryKind::File));
        self::assertSame(0755, $opened(0700, EntryKind::Directory));
        self::assertSame(0666, $opened(0222, EntryKind::File), 'and its owner may read it');
        self::assertNotNull((new Rights(0777, EntryKind::File))->warning());
        self::assertNotNull((new Rights(04755, EntryKind::File))->warning());
        self::assertNull((new Rights(0644, EntryKind::File))->warning());
        self::assertSame(
            [true, true, false, true, false, false, true, false, false],
            (new Rights(0644, EntryKind::File))->nine(),
        );
    }

    /** @return iterable<string, array{string, int, string, VisitorsGet}> */
    public static function answers(): iterable
    {
        yield 'a page' => ['a.html', 200, '<h1>a', VisitorsGet::TheFile];
        yield 'a program that is run' => ['a.php', 200, '<h1>a', VisitorsGet::WhatItMakes];
        yield 'a program that is shown' => ['a.php', 200, '<?php echo', VisitorsGet::ItsSource];
        yield 'a dump' => ['shop.sql', 200, 'insert', VisitorsGet::Exposed];
        yield 'an archive' => ['site.zip', 200, 'PK', VisitorsGet::Exposed];
        yield 'refused' => ['a.html', 403, 'no', VisitorsGet::Refused];
        yield 'not there' => ['a.html', 404, 'no', VisitorsGet::NotFound];
        yield 'elsewhere' => ['a.html', 301, '', VisitorsGet::Redirected];
        yield 'a fault' => ['a.php', 500, '', VisitorsGet::Fault];
        yield 'nothing' => ['a.html', 0, '', VisitorsGet::Nothing];
        yield 'a listing' => ['dir/', 200, '<title>Index of /dir</title>', VisitorsGet::Listing];
        yield 'a start page' => ['dir/', 200, '<title>Dials</title>', VisitorsGet::APage];
    }

    #[DataProvider('answers')]
    public function test_what_visitors_get_is_told(string $name, int $status, string $head, VisitorsGet $get): void
    {
        $entry = self::entry(
            rtrim($name, '/'),
            kind: str_ends_with($name, '/') ? EntryKind::Directory : EntryKind::File,
        );
        $answer = new WebAnswer("http://site.example/$name", $status, hash('sha256', $head), strlen($head), $head);

        self::assertSame($get, VisitorsGet::fromAnswer($entry, $answer));
    }

    public function test_a_working_copy_is_read_back_and_as_long_before_its_hashes_are_known(): void
    {
        $copy = WorkingCopy::fromEntries(
            'site.example',
            RemotePath::fromString('/www/site.example'),
            5,
            [self::entry('ä "b".html'), self::entry('dir', kind: EntryKind::Directory)],
        );
        $before = strlen($copy->toText());
        $copy->hold(RelativePath::fromString('ä "b".html'), hash('sha256', 'b'));

        self::assertSame($before, strlen($copy->toText()));
        $read = WorkingCopy::fromText($copy->toText());
        self::assertEquals($copy->manifest(), $read->manifest());
        self::assertSame(['site.example', '/www/site.example', 5], [
            $read->from,
            (string) $read->directory,
            $read->at,
        ]);
        foreach (['{}', '[]', 'no', str_replace('/1', '/9', $copy->toText())] as $other) {
            try {
                WorkingCopy::fromText($other);
                self::fail("$other was taken for one.");
            } catch (\UnexpectedValueException $fault) {
                self::assertNotSame('', $fault->getMessage());
            }
        }
    }

    public function test_a_folder_nobody_guesses_is_told_from_any_other(): void
    {
        $seen = [];
        for ($i = 0; $i < 200; $i++) {
            $name = PrivateName::fromWords('plans of 2026');
            self::assertTrue(PrivateName::isOne($name), $name);
            self::assertSame('plans of 2026', PrivateName::words($name));
            $seen[$name] = true;
        }
        self::assertCount(200, $seen);
        self::assertSame('', PrivateName::words(PrivateName::fromWords('')));
        foreach (['plans', 'something-wonderfup-otherwisd', 'a-2026-05-31-abcdefghj'] as $name) {
            self::assertFalse(PrivateName::isOne($name), $name);
        }
    }

    /** @return iterable<string, array{string, mixed}> what of a file, and what somebody has made of it */
    public static function tampered(): iterable
    {
        yield 'a path that leaves' => ['path', '../../etc/passwd'];
        yield 'a path from the root' => ['path', '/etc/passwd'];
        yield 'a path with a NUL' => ['path', "a\0b"];
        yield 'no path' => ['path', ''];
        yield 'less than nothing' => ['size', -5];
        yield 'more than there is' => ['size', PHP_INT_MAX];
        yield 'a mode of other bits' => ['mode', 99_999_999];
        yield 'a mode below nothing' => ['mode', -1];
        yield 'a hash that is none' => ['sha256', str_repeat('A', 64)];
    }

    #[DataProvider('tampered')]
    public function test_a_working_copy_that_was_tampered_with_is_none(string $what, mixed $value): void
    {
        $file = [
            'path' => 'a.html',
            'size' => 1,
            'modified' => null,
            'mode' => 0644,
            'sha256' => str_repeat('a', 64),
        ];
        $text = static fn (array $file, string $at = '/www'): string => (string) json_encode([
            'format' => 'cellarium-working-copy/1',
            'from' => 'site.example',
            'directory' => $at,
            'at' => 1,
            'files' => [$file],
        ]);
        self::assertCount(1, WorkingCopy::fromText($text($file))->manifest()->files());
        foreach ([$text([$what => $value] + $file), $text($file, '/www/../..')] as $tampered) {
            try {
                WorkingCopy::fromText($tampered);
                self::fail('It was believed.');
            } catch (\UnexpectedValueException $refused) {
                self::assertNotSame('', $refused->getMessage());
            }
        }
    }
}
