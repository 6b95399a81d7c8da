<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

/**
 * The guard between cells of a list and spreadsheets, both ways: a cell that begins like a formula would be carried out
 * there, so an apostrophe is put before it, and taken away when the list comes back.
 */
final class CsvCell
{
    private const FORMULA = '/\A\'*[=+\-@\t\r\n\x{FF1D}\x{FF0B}\x{FF0D}\x{FF20}]/u';

    public static function guarded(string $text): string
    {
        // Most cells begin with a letter or digit, and there are many of them.
        return ! ctype_alnum($text[0] ?? '0') && preg_match(self::FORMULA, mb_scrub($text)) === 1 ? "'$text" : $text;
    }

    /** The text that was guarded; one that never was is left as it is. */
    public static function unguarded(string $cell): string
    {
        return str_starts_with($cell, "'") && preg_match(self::FORMULA, mb_scrub(substr($cell, 1))) === 1
            ? substr($cell, 1)
            : $cell;
    }

    /**
     * @param  resource  $sink
     * @param  list<string>  $cells
     */
    public static function line($sink, array $cells): void
    {
        fputcsv($sink, array_map(self::guarded(...), $cells), ',', '"', '');
    }
}
