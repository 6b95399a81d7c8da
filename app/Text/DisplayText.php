<?php

declare(strict_types=1);

namespace App\Text;

use Illuminate\Contracts\Support\DeferringDisplayableValue;
use Illuminate\Contracts\Support\Htmlable;

/**
 * Text on its way into a page. Beside what HTML needs, characters that nobody sees but that change what is read are
 * made visible: direction marks turn "gpj.exe" round, control characters hide behind nothing.
 *
 * Every `{{ }}` goes through it; fields that are sent back as they are take `{!! e() !!}`.
 */
final class DisplayText
{
    /**
     * Marks of direction (Unicode 6.3, UAX 9), zero-width and other invisible ones, C0 without tab and line ends, C1.
     * Joiners (U+200C, U+200D) stay: words and signs are written with them.
     */
    private const UNSEEN = '/[\x{202A}-\x{202E}\x{2066}-\x{2069}\x{200B}\x{200E}\x{200F}\x{061C}'
        .'\x{2028}\x{2029}\x{FEFF}\x{00AD}\x{180E}\x00-\x08\x0B\x0C\x0E-\x1F\x7F-\x9F]/u';

    /** What WireName holds: a byte that is no text. */
    private const HELD = '/[\x{10FE01}-\x{10FEFF}]/u';

    public static function escaped(mixed $value): string
    {
        if (
            $value instanceof Htmlable
            || $value instanceof DeferringDisplayableValue
            || $value instanceof \BackedEnum
        ) {
            return e($value);
        }

        return self::marked(e(is_string($value) ? mb_scrub($value) : $value));
    }

    /** @param  string  $text  escaped already, valid UTF-8 */
    private static function marked(string $text): string
    {
        if (preg_match('/\A[\x09\x0A\x0D\x20-\x7E]*\z/', $text) === 1) {
            return $text;
        }
        $text = (string) preg_replace_callback(
            self::UNSEEN,
            static fn (array $match): string => sprintf('‹U+%04X›', mb_ord($match[0])),
            $text,
        );

        return (string) preg_replace_callback(
            self::HELD,
            static fn (array $match): string => sprintf('‹%02X›', mb_ord($match[0]) - 0x10FE00),
            $text,
        );
    }
}
