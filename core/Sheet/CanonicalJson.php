<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

/**
 * The one way to write given facts as JSON (RFC 8785), so that a signature holds however a file was indented.
 *
 * Numbers with a fraction are refused: nothing here needs them, and how they are written is what differs most.
 */
final class CanonicalJson
{
    private const DEEPEST = 32;

    /**
     * @param  \stdClass  $value  of texts in UTF-8, whole numbers, true, false, null, lists and more objects
     *
     * @throws \UnexpectedValueException for anything else
     */
    public static function encode(\stdClass $value): string
    {
        return self::write($value, 0);
    }

    private static function write(mixed $value, int $depth): string
    {
        $depth < self::DEEPEST || throw new \UnexpectedValueException('It is nested too deeply.');
        if ($value instanceof \stdClass) {
            return self::object(get_object_vars($value), $depth);
        }
        if (is_array($value) && array_is_list($value)) {
            $each = array_map(static fn (mixed $one): string => self::write($one, $depth + 1), $value);

            return '['.implode(',', $each).']';
        }
        is_string($value) || is_int($value) || is_bool($value) || $value === null
            || throw new \UnexpectedValueException('It holds what is neither text nor a whole number.');
        try {
            return json_encode(
                $value,
                JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_LINE_TERMINATORS | JSON_THROW_ON_ERROR,
            );
        } catch (\JsonException $wrong) {
            throw new \UnexpectedValueException('It holds text that is not UTF-8.', previous: $wrong);
        }
    }

    /** @param  array<mixed>  $fields */
    private static function object(array $fields, int $depth): string
    {
        $names = array_map(strval(...), array_keys($fields));
        // By their UTF-16 code units, as the standard says.
        usort($names, static fn (string $one, string $other): int => strcmp(
            mb_convert_encoding($one, 'UTF-16BE', 'UTF-8'),
            mb_convert_encoding($other, 'UTF-16BE', 'UTF-8'),
        ));
        $parts = array_map(
            static fn (string $name): string => self::write($name, $depth).':'.self::write($fields[$name], $depth + 1),
            $names,
        );

        return '{'.implode(',', $parts).'}';
    }
}
