<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Package\RefusalReason;
use ZipArchive;

/**
 * Archives made to break out, to fill disks, to take memory or time, or to be one thing to one reader and another thing
 * to the next. Each with the reason it is refused for; null for those that are opened, and have to do no harm.
 */
final class HostileArchives
{
    /** @return iterable<string, array{\Closure(string): string, RefusalReason|null}> written into a directory */
    public static function all(): iterable
    {
        yield from self::noArchives();
        foreach (self::names() as $name => [$path, $reason]) {
            yield "zip, $name" => [self::zip(['index.html' => 'x', $path => 'x']), $reason];
            if (strlen($path) < 100 && ! str_contains($path, '\\')) {
                yield "tar, $name" => [self::tar(Tars::entry($path, 'x')), $reason];
            }
        }
        yield from self::zips();
        yield from self::tars();
        yield from self::compressed();
        yield from HostileContents::all();
    }

    /** @return iterable<string, array{\Closure(string): string, RefusalReason}> */
    private static function noArchives(): iterable
    {
        $bytes = static fn (string $bytes): \Closure => self::written($bytes);
        yield 'a letter' => [$bytes('Dear Rowan'), RefusalReason::NotAnArchive];
        yield 'nothing at all' => [$bytes(''), RefusalReason::NotAnArchive];
        yield 'noise' => [$bytes(str_repeat('not a tar ', 200)), RefusalReason::NotAnArchive];
        yield 'a program with a zip behind it' => [$bytes('MZ'.str_repeat('x', 600)), RefusalReason::NotAnArchive];
        yield 'the first bytes of a zip' => [$bytes("PK\x03\x04"), RefusalReason::NotAnArchive];
        yield 'an empty zip' => [$bytes("PK\x05\x06".str_repeat("\0", 18)), RefusalReason::Empty];
        yield 'only zeros' => [$bytes(str_repeat("\0", 4096)), RefusalReason::Empty];
        yield 'only directories' => [self::zip(['a/' => '', 'a/b/' => '']), RefusalReason::Empty];
    }

    /** @return iterable<string, array{string, RefusalReason|null}> */
    private static function names(): iterable
    {
        yield 'climbing out' => ['../../evil.php', RefusalReason::Leaves];
        yield 'climbing out from below' => ['a/b/../../../evil.php', RefusalReason::Leaves];
        yield 'climbing and coming back' => ['a/../evil.php', RefusalReason::Leaves];
        yield 'climbing out with backslashes' => ['..\\evil.php', RefusalReason::Leaves];
        yield 'only a climb' => ['a/..', RefusalReason::Leaves];
        yield 'an absolute name' => ['/etc/passwd', RefusalReason::Leaves];
        yield 'a drive' => ['C:/evil.php', RefusalReason::Leaves];
        yield 'a share' => ['//host/share/evil.php', RefusalReason::Leaves];
        yield 'a line end' => ["evil\n.html", RefusalReason::BadName];
        yield 'a control character' => ["evil\x1b[2J.html", RefusalReason::BadName];
        yield 'a delete character' => ["evil\x7f.html", RefusalReason::BadName];
        yield 'a name of our own kind' => ['img/.cellarium-a1-7.part', RefusalReason::OurName];
        yield 'a name that stands for bytes' => ["\u{10FEFC}.html", RefusalReason::BadName];
        yield 'too long a name' => [str_repeat('n', 300).'.html', RefusalReason::BadName];
        yield 'thousands of directories' => [str_repeat('d/', 3000).'x.html', RefusalReason::BadName];
    }

    /** @return iterable<string, array{\Closure(string): string, RefusalReason|null}> */
    private static function zips(): iterable
    {
        $ordinary = self::zip(['index.html' => str_repeat('hello ', 900), 'b.html' => random_bytes(5000)]);
        foreach ([
            'a link' => 0120777,
            'a device' => 020666,
            'a pipe' => 010644,
            'a socket' => 0140755,
        ] as $name => $mode) {
            yield "zip, $name" => [self::zip(
                ['index.html' => 'x', 'l' => '/etc/passwd'],
                static fn (ZipArchive $zip) => $zip->setExternalAttributesName(
                    'l',
                    ZipArchive::OPSYS_UNIX,
                    $mode << 16,
                ),
            ), RefusalReason::Link];
        }
        foreach ([ZipArchive::EM_AES_128, ZipArchive::EM_AES_256, ZipArchive::EM_TRAD_PKWARE] as $cipher) {
            yield "zip, encrypted by $cipher" => [self::zip(
                ['index.html' => 'x'],
                static fn (ZipArchive $zip) => $zip->setEncryptionName('index.html', $cipher, 'word'),
            ), RefusalReason::Encrypted];
        }
        yield 'zip, cut in the middle' => [
            self::changed($ordinary, static fn (string $zip): string => substr($zip, 0, 3000)),
            RefusalReason::NotAnArchive,
        ];
        yield 'zip, a flipped byte' => [
            self::changed($ordinary, static function (string $zip): string {
                $zip[2500] = chr(ord($zip[2500]) ^ 1);

                return $zip;
            }),
            RefusalReason::Broken,
        ];
        yield 'zip, a wrong checksum' => [self::patched($ordinary, 16, "\1\2\3\4"), RefusalReason::Broken];
        yield 'zip, a size that is too small' => [self::patched($ordinary, 24, pack('V', 3)), RefusalReason::Bomb];
        yield 'zip, a size that is too large' => [self::patched($ordinary, 24, pack('V', 9999)), RefusalReason::Broken];
        yield 'zip, an unknown way of packing' => [self::patched($ordinary, 10, pack('v', 97)), RefusalReason::Broken];
        yield 'zip, contents behind the end' => [
            self::patched($ordinary, 42, pack('V', 0x7FFFFFFF)),
            RefusalReason::Broken,
        ];
        yield 'zip, more entries than it says' => [
            self::changed($ordinary, static fn (string $zip): string => substr_replace(
                $zip,
                pack('vv', 1, 1),
                (int) strrpos($zip, "PK\x05\x06") + 8,
                4,
            )),
            RefusalReason::Broken,
        ];
        yield 'zip, a second directory in its comment' => [
            self::changed($ordinary, static fn (string $zip): string => $zip."PK\x05\x06".str_repeat("\0", 18)),
            RefusalReason::Broken,
        ];
        // The name in the directory counts, and only that.
        yield 'zip, another name before the contents' => [
            self::changed($ordinary, static fn (string $zip): string => substr_replace($zip, '../../evil', 30, 10)),
            null,
        ];
        yield 'zip, a name with a NUL' => [
            self::changed(
                self::zip(['index.html' => 'x', 'evil.php_.jpg' => 'x']),
                static fn (string $zip): string => str_replace('evil.php_.jpg', "evil.php\0.jpg", $zip),
            ),
            RefusalReason::BadName,
        ];
        yield 'zip, one name twice' => [
            self::changed(
                self::zip(['index.html' => 'x', 'index.htmm' => 'y']),
                static fn (string $zip): string => str_replace('index.htmm', 'index.html', $zip),
            ),
            RefusalReason::TwiceTheSame,
        ];
        yield 'zip, a file that is a directory too' => [
            self::zip(['index.html' => 'x', 'a' => 'x', 'a/b' => 'y']),
            RefusalReason::TwiceTheSame,
        ];
        yield 'zip, ten gigabytes in one megabyte' => [
            static fn (string $to): string => Zips::bomb("$to/x.zip", 200, 50),
            RefusalReason::Bomb,
        ];
        yield 'zip, a smaller bomb' => [
            static fn (string $to): string => Zips::bomb("$to/x.zip", 1, 50),
            RefusalReason::Bomb,
        ];
        yield 'zip, entries that share their contents' => [
            static fn (string $to): string => Zips::bomb("$to/x.zip", 900, 5),
            RefusalReason::TooLarge,
        ];
    }

    /** @return iterable<string, array{\Closure(string): string, RefusalReason|null}> */
    private static function tars(): iterable
    {
        foreach ([
            '1' => 'a hard link',
            '2' => 'a link',
            '3' => 'a device',
            '4' => 'a disk',
            '6' => 'a pipe',
            '7' => 'a file of another kind',
            'S' => 'a file with holes',
            'V' => 'a label',
        ] as $kind => $name) {
            yield "tar, $name" => [self::tar(Tars::entry('l', '', (string) $kind)), RefusalReason::Link];
        }
        yield 'tar, a longer name that climbs' => [
            self::tar(Tars::entry('L', "../evil.php\0", 'L').Tars::entry('index.html', 'x')),
            RefusalReason::Leaves,
        ];
        yield 'tar, a record that climbs' => [
            self::tar(Tars::pax('path', '../evil.php').Tars::entry('index.html', 'x')),
            RefusalReason::Leaves,
        ];
        yield 'tar, a record with an absolute name' => [
            self::tar(Tars::pax('path', '/etc/passwd').Tars::entry('index.html', 'x')),
            RefusalReason::Leaves,
        ];
        yield 'tar, a record without an end' => [
            self::tar(Tars::entry('x', str_repeat('9', 70000), 'x').Tars::entry('index.html', 'x')),
            RefusalReason::BadName,
        ];
        yield 'tar, more entries than there may be' => [
            static fn (string $to): string => self::written(Tars::many(100_001))($to),
            RefusalReason::TooManyEntries,
        ];
        yield 'tar, only records' => [self::tar(str_repeat(Tars::pax('comment', 'x'), 2000)), RefusalReason::Empty];
        yield 'tar, a record for nobody' => [
            self::tar(Tars::entry('index.html', 'x').Tars::pax('path', '../evil.php')),
            null,
        ];
        yield 'tar, cut short' => [
            self::written(Tars::entry('index.html', 'x', size: "00000011610\0")),
            RefusalReason::Broken,
        ];
        yield 'tar, without its end' => [self::written(Tars::entry('index.html', 'hello')), RefusalReason::Broken];
        yield 'tar, a size below zero' => [
            self::tar(Tars::entry('index.html', 'x', size: str_repeat("\xff", 12))),
            RefusalReason::Broken,
        ];
        yield 'tar, a size without an end' => [
            self::tar(Tars::entry('index.html', 'x', size: '777777777777')),
            RefusalReason::TooLarge,
        ];
        yield 'tar, a wrong sum' => [
            self::written(substr_replace(Tars::entry('index.html', 'x'), 'X', 3, 1).Tars::end()),
            RefusalReason::NotAnArchive,
        ];
        yield 'tar, one name twice' => [
            self::tar(Tars::entry('index.html', 'x').Tars::entry('index.html', 'y')),
            RefusalReason::TwiceTheSame,
        ];
        yield 'tar, a file below a file' => [
            self::tar(Tars::entry('a', 'x').Tars::entry('a/b', 'y')),
            RefusalReason::TwiceTheSame,
        ];
    }

    /** @return iterable<string, array{\Closure(string): string, RefusalReason|null}> */
    private static function compressed(): iterable
    {
        $tar = Tars::entry('index.html', random_bytes(9000)).Tars::end();
        $gz = (string) gzencode($tar);
        yield 'gzip, no tar in it' => [
            self::written((string) gzencode(str_repeat('not a tar ', 100))),
            RefusalReason::NotAnArchive,
        ];
        yield 'gzip, cut' => [self::written(substr($gz, 0, 5000)), RefusalReason::Broken];
        yield 'gzip, without its last byte' => [self::written(substr($gz, 0, -1)), RefusalReason::Broken];
        yield 'gzip, something behind it' => [self::written("{$gz}and more"), RefusalReason::Broken];
        yield 'gzip, a bomb' => [
            self::written((string) gzencode(Tars::entry('index.html', str_repeat("\0", 40_000_000)))),
            RefusalReason::Bomb,
        ];
        yield 'gzip, a bomb behind the end' => [
            self::written(gzencode($tar).gzencode(str_repeat("\0", 40_000_000))),
            RefusalReason::Bomb,
        ];
        yield 'gzip, a bomb within a bomb' => [
            self::written((string) gzencode((string) gzencode(str_repeat("\0", 40_000_000)))),
            RefusalReason::NotAnArchive,
        ];
        $xz = static fn (\Closure $change): \Closure => static fn (string $to): string => self::written($change(
            Tars::xz($tar, "$to/part"),
        ))($to);
        yield 'xz, cut' => [$xz(static fn (string $xz): string => substr($xz, 0, 5000)), RefusalReason::Broken];
        yield 'xz, a flipped byte' => [
            $xz(static fn (string $xz): string => substr_replace($xz, chr(ord($xz[4000]) ^ 1), 4000, 1)),
            RefusalReason::Broken,
        ];
        yield 'xz, something behind it' => [
            $xz(static fn (string $xz): string => "{$xz}and more"),
            RefusalReason::Broken,
        ];
        yield 'xz, more memory than there is' => [$xz(self::withDictionary(...)), RefusalReason::Broken];
        yield 'xz, a bomb' => [
            static fn (string $to): string => self::written(Tars::xz(
                Tars::entry('index.html', str_repeat("\0", 40_000_000)),
                "$to/part",
            ))($to),
            RefusalReason::Bomb,
        ];
    }

    /** The same with a dictionary of 1.5 GiB (the .xz format, 3.1 and 5.3.1): the header has its own sum. */
    private static function withDictionary(string $xz): string
    {
        $at = 12;
        $bytes = (ord($xz[$at]) + 1) * 4;
        $header = substr($xz, $at, $bytes - 4);
        $header[(int) strpos($header, "\x21\x01", 2) + 2] = chr(37);

        return substr_replace($xz, $header.pack('V', crc32($header)), $at, $bytes);
    }

    /** @return \Closure(string): string */
    private static function written(string $bytes): \Closure
    {
        return static function (string $to) use ($bytes): string {
            file_put_contents("$to/x.bin", $bytes);

            return "$to/x.bin";
        };
    }

    /**
     * @param  array<string, string>  $files
     * @return \Closure(string): string
     */
    public static function zip(array $files, ?\Closure $change = null): \Closure
    {
        return static fn (string $to): string => Zips::make("$to/x.zip", $files, $change);
    }

    /** @return \Closure(string): string */
    private static function tar(string $entries): \Closure
    {
        return self::written((string) gzencode($entries.Tars::end()));
    }

    /**
     * @param  \Closure(string): string  $make
     * @param  \Closure(string): string  $change  from bytes to bytes
     * @return \Closure(string): string
     */
    private static function changed(\Closure $make, \Closure $change): \Closure
    {
        return static fn (string $to): string => self::written($change((string) file_get_contents($make($to))))($to);
    }

    /**
     * Other bytes in the first entry of the directory of a zip (APPNOTE 4.3.12).
     *
     * @param  \Closure(string): string  $make
     * @return \Closure(string): string
     */
    private static function patched(\Closure $make, int $offset, string $bytes): \Closure
    {
        return self::changed($make, static fn (string $zip): string => substr_replace(
            $zip,
            $bytes,
            (int) strpos($zip, "PK\x01\x02") + $offset,
            strlen($bytes),
        ));
    }
}
