<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\File\NotText;
use Cellarium\Core\File\TextEncoding;
use Cellarium\Core\File\TextFile;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TextFileTest extends TestCase
{
    /** @return iterable<string, array{string, TextEncoding}> */
    public static function files(): iterable
    {
        $umlaut = "Größe\r\nzweite Zeile\r\n";
        yield 'UTF-8' => [$umlaut, TextEncoding::Utf8];
        yield 'UTF-8 with a mark' => ["\xef\xbb\xbf$umlaut", TextEncoding::Utf8];
        yield 'UTF-16, little end first' => [
            "\xff\xfe".mb_convert_encoding($umlaut, 'UTF-16LE', 'UTF-8'),
            TextEncoding::Utf16Le,
        ];
        yield 'UTF-16, big end first' => [
            "\xfe\xff".mb_convert_encoding($umlaut, 'UTF-16BE', 'UTF-8'),
            TextEncoding::Utf16Be,
        ];
        yield 'Latin-1' => ["Gr\xf6\xdfe\nzweite Zeile", TextEncoding::Latin1];
        yield 'Windows-1252' => ["\x84Gr\xf6\xdfe\x93\nzweite Zeile\n", TextEncoding::Windows1252];
        yield 'empty' => ['', TextEncoding::Utf8];
        yield 'line ends mixed' => ["a\r\nb\nc\rd\r\ne", TextEncoding::Utf8];
    }

    #[DataProvider('files')]
    public function test_what_is_not_edited_keeps_every_byte(string $bytes, TextEncoding $encoding): void
    {
        $file = TextFile::fromBytes($bytes);

        self::assertSame($encoding, $file->encoding);
        self::assertSame($bytes, $file->bytesOf($file->edited()));
        self::assertSame($bytes, $file->bytesOf(str_replace("\n", "\r\n", $file->edited())), 'as a browser sends it');
    }

    public function test_an_edited_line_is_written_as_the_file_was_and_the_others_stay(): void
    {
        $file = TextFile::fromBytes("a\r\nb\nGr\xf6\xdfe\r\nd");
        $edited = str_replace("b\n", "b, now ä\nnew\n", $file->edited());

        self::assertSame("a\r\nb, now \xe4\r\nnew\r\nGr\xf6\xdfe\r\nd", $file->bytesOf($edited));
    }

    public function test_a_line_taken_out_of_mixed_ends_moves_no_other_end(): void
    {
        $file = TextFile::fromBytes("a\nb\r\nc\nd\r\ne\n");

        self::assertSame("a\nc\nd\r\ne\n", $file->bytesOf("a\nc\nd\ne\n"));
        self::assertSame("a\nb\r\nc\nd\r\ne", $file->bytesOf("a\nb\nc\nd\ne"), 'the last end is taken away on purpose');
    }

    public function test_a_character_without_a_place_in_the_encoding_is_said_with_its_line(): void
    {
        $file = TextFile::fromBytes("Gr\xf6\xdfe\nPreis\n");

        $this->expectException(NotText::class);
        $this->expectExceptionMessage('Line 2 has “€”, which Latin-1 cannot hold');
        $file->bytesOf("Größe\n12 €\n");
    }

    public function test_what_is_no_text_or_too_large_says_so(): void
    {
        foreach (["\x89PNG\r\n\x1a\n\0\0", "text\0text", str_repeat('x', TextFile::MOST + 1)] as $bytes) {
            try {
                TextFile::fromBytes($bytes);
                self::fail('It was taken for text.');
            } catch (NotText $not) {
                self::assertMatchesRegularExpression('/no plain text|over 2 MB/', $not->getMessage());
            }
        }
    }
}
