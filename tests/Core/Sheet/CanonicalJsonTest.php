<?php

declare(strict_types=1);

namespace Tests\Core\Sheet;

use Cellarium\Core\Sheet\CanonicalJson;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CanonicalJsonTest extends TestCase
{
    /** The examples of RFC 8785 (3.2.2 to 3.2.4) that hold no number with a fraction. */
    #[DataProvider('examples')]
    public function test_it_writes_what_the_standard_writes(string $given, string $expected): void
    {
        self::assertSame($expected, CanonicalJson::encode(self::read($given)));
    }

    /** @return array<string, array{string, string}> */
    public static function examples(): array
    {
        return [
            'literals and texts' => [
                '{ "string": "\u20ac$\u000F\u000aA\'\u0042\u0022\u005c\\\\\"\/", "literals": [null, true, false] }',
                '{"literals":[null,true,false],"string":"€$\u000f\nA\'B\"\\\\\\\\\"/"}',
            ],
            'names by their UTF-16 code units' => [
                '{ "\u20ac": "Euro Sign", "\r": "Carriage Return", "\ufb33": "Hebrew Letter Dalet With Dagesh", '
                    .'"1": "One", "\ud83d\ude00": "Emoji: Grinning Face", "\u0080": "Control", '
                    .'"\u00f6": "Latin Small Letter O With Diaeresis" }',
                "{\"\\r\":\"Carriage Return\",\"1\":\"One\",\"\u{80}\":\"Control\","
                    .'"ö":"Latin Small Letter O With Diaeresis","€":"Euro Sign","😀":"Emoji: Grinning Face",'
                    ."\"\u{fb33}\":".'"Hebrew Letter Dalet With Dagesh"}',
            ],
            'an empty object is no empty list' => ['{"a": {}, "b": []}', '{"a":{},"b":[]}'],
            'what could be a list stays an object' => ['{"a": {"0": 1}}', '{"a":{"0":1}}'],
        ];
    }

    public function test_a_number_with_a_fraction_is_refused(): void
    {
        $this->expectException(\UnexpectedValueException::class);
        CanonicalJson::encode(self::read('{"a": 1.5}'));
    }

    public function test_what_is_nested_without_end_is_refused(): void
    {
        $this->expectException(\UnexpectedValueException::class);
        CanonicalJson::encode(self::read(str_repeat('{"a":', 60).'1'.str_repeat('}', 60)));
    }

    private static function read(string $json): \stdClass
    {
        $read = json_decode($json, false, 100, JSON_THROW_ON_ERROR);

        return $read instanceof \stdClass ? $read : new \stdClass;
    }
}
