<?php

declare(strict_types=1);

namespace Tests\Core\Path;

use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every name a server may have becomes a path here, and goes back as the bytes it was. */
final class WireNameTest extends TestCase
{
    /** @return iterable<string, array{string}> */
    public static function names(): iterable
    {
        yield 'Latin-1' => ["f\xfcr.txt"];
        yield 'cut UTF-8' => ["caf\xc3"];
        yield 'overlong UTF-8' => ["\xc0\xaf\xc0\xae\xc0\xae"];
        yield 'surrogates' => ["\xed\xa0\x80"];
        yield 'control characters' => ["a\x01b\x7f\n"];
        yield 'a backslash first' => ['\\share'];
        yield 'a way out of another system' => ['..\\..\\etc'];
        yield 'a drive' => ['C:'];
        yield 'what would stand for a byte' => ["\u{10FEFC}.txt"];
        yield 'every byte' => [implode('', array_map(chr(...), array_diff(range(1, 255), [0x2F])))];
    }

    #[DataProvider('names')]
    public function test_a_name_of_any_bytes_is_held_and_given_back(string $bytes): void
    {
        $name = WireName::fromWire($bytes);
        self::assertTrue(mb_check_encoding($name, 'UTF-8'));
        self::assertTrue(WireName::isHolding($name));
        self::assertSame($bytes, WireName::toWire($name));
        $path = RemotePath::root()->child(RelativePath::fromString("$name/below")->toString());
        self::assertSame("/$bytes/below", WireName::toWire($path->toString()));
    }

    public function test_names_that_are_text_stay_as_they_are(): void
    {
        foreach (['index.html', 'größe ♥.txt', ' two blanks', 'ends:', 'c:d', "\u{202e}x", '~x', '100%25'] as $name) {
            self::assertSame($name, WireName::fromWire($name));
            self::assertSame($name, WireName::toWire($name));
            self::assertFalse(WireName::isHolding($name));
        }
    }
}
