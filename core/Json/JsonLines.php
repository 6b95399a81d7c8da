<?php

declare(strict_types=1);

namespace Cellarium\Core\Json;

/** Rows as text with a JSON object on each line, so that many are written and read without all being held at once. */
final readonly class JsonLines
{
    /** So much is handed on together, in bytes. */
    private const CHUNK = 1 << 18;

    /**
     * @param  iterable<array<string, mixed>>  $rows
     * @return \Generator<int, string> whole lines, many at a time
     *
     * @throws \JsonException
     */
    public static function encode(iterable $rows): \Generator
    {
        $chunk = '';
        foreach ($rows as $row) {
            $chunk .= self::line($row);
            if (strlen($chunk) > self::CHUNK) {
                yield $chunk;
                $chunk = '';
            }
        }
        if ($chunk !== '') {
            yield $chunk;
        }
    }

    /**
     * @param  array<string, mixed>  $row
     *
     * @throws \JsonException
     */
    public static function line(array $row): string
    {
        return json_encode($row, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR)."\n";
    }

    /**
     * @return \Generator<int, JsonFields>
     *
     * @throws \UnexpectedValueException when a line is no JSON object, or the last one was cut
     */
    public static function decode(string $text): \Generator
    {
        $length = strlen($text);
        for ($at = 0; $at < $length; $at = $end + 1) {
            $end = strpos($text, "\n", $at);
            if ($end === false) {
                throw new \UnexpectedValueException('The last line of what was stored is cut.');
            }
            yield JsonFields::fromJson(substr($text, $at, $end - $at));
        }
    }
}
