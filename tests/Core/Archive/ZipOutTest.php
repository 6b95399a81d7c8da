<?php

declare(strict_types=1);

namespace Tests\Core\Archive;

use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Archive\ZippedSize;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;
use ZipArchive;

final class ZipOutTest extends TestCase
{
    use Scratch;

    public function test_names_times_modes_and_bytes_come_out_as_they_went_in(): void
    {
        $files = [
            'plain.txt' => ['plain', 0640, 1_700_000_001],
            'dir/ä ö 100% #1?.txt' => ['umlauts', 0644, 1_600_000_000],
            "dir/caf\xe9.txt" => ['Latin-1', 0604, 1_500_000_000],
            'empty' => ['', 0600, 0],
        ];
        $file = $this->directory().'/out.zip';
        $sink = fopen($file, 'w+b');
        $zip = new ZipOut(static function (string $bytes) use ($sink): void {
            fwrite($sink, $bytes);
        });
        $zip->directory('dir', 1_700_000_000, 0750);
        foreach ($files as $name => [$text, $mode, $modified]) {
            $stream = fopen('php://temp', 'w+b');
            fwrite($stream, $text);
            rewind($stream);
            $zip->file($name, $modified, $mode, ZippedSize::stored(strlen($text), crc32($text)), $stream);
        }
        $zip->finish();
        fclose($sink);

        $entries = [['dir/', 0], ...array_map(
            static fn (string $name): array => [$name, strlen($files[$name][0])],
            array_keys($files),
        )];
        self::assertSame(filesize($file), ZipOut::length($entries), 'its length is known before');
        $read = new ZipArchive;
        self::assertTrue($read->open($file, ZipArchive::RDONLY | ZipArchive::CHECKCONS));
        $read->getExternalAttributesIndex(0, $system, $attributes);
        self::assertSame([ZipArchive::OPSYS_UNIX, 0040750], [$system, $attributes >> 16]);
        foreach (array_keys($files) as $index => $name) {
            [$text, $mode, $modified] = $files[$name];
            self::assertSame($name, $read->statIndex($index + 1, ZipArchive::FL_ENC_RAW)['name'] ?? null);
            self::assertSame($text, $read->getFromIndex($index + 1));
            $read->getExternalAttributesIndex($index + 1, $system, $attributes);
            self::assertSame(0100000 | $mode, $attributes >> 16);
        }
        exec('cd '.escapeshellarg(dirname($file)).' && unzip -q out.zip 2>&1', $said, $code);
        self::assertSame(0, $code, implode("\n", $said));
        self::assertSame(1_700_000_001, filemtime(dirname($file).'/plain.txt'));
        self::assertSame(0640, fileperms(dirname($file).'/plain.txt') & 07777);
    }

    public function test_an_archive_of_more_than_the_old_fields_hold_has_the_length_that_was_said(): void
    {
        $entries = [['large.bin', 5_000_000_000], ['behind.bin', 3]];
        for ($file = 0; $file < 66_000; $file++) {
            $entries[] = ["many/$file.txt", 0];
        }
        $local = array_sum(array_map(static fn (array $entry): int => 30 + 9 + strlen($entry[0]), $entries)) + 20;
        $central = array_sum(array_map(static fn (array $entry): int => 46 + 9 + strlen($entry[0]), $entries))
            + 20 + 12 * (count($entries) - 1);

        self::assertSame(5_000_000_003 + $local + $central + 56 + 20 + 22, ZipOut::length($entries));
    }

    public function test_a_file_that_gives_fewer_bytes_than_said_ends_it(): void
    {
        $zip = new ZipOut(static fn (string $bytes): int => strlen($bytes));
        $stream = fopen('php://temp', 'w+b');
        fwrite($stream, 'short');
        rewind($stream);

        $this->expectException(\LengthException::class);
        $zip->file('a.txt', 0, 0644, ZippedSize::stored(10, 0), $stream);
    }
}
