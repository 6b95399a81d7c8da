<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/**
 * Between the bytes a server uses for a name and the text that stands for them here, both ways and without loss.
 *
 * Servers take any byte but "/" and NUL; a path here is UTF-8 without control characters and without what could be
 * taken for a way out. What does not fit is held by one private-use character a byte, U+10FE00 plus the byte, so that
 * a Latin-1 name (0xFC for "ü") is listed, fetched, renamed and addressed like any other, and shown as what it is.
 */
final class WireName
{
    private const FIRST = 0x10FE00;

    /** U+10FE01 to U+10FEFF in UTF-8: F4 8F B8 81 to F4 8F BB BF. */
    private const HELD = '/\xF4\x8F[\xB8-\xBB][\x80-\xBF]/';

    /** @param  string  $bytes  a name as the server has it, without "/" and NUL, not empty */
    public static function fromWire(string $bytes): string
    {
        if (preg_match('/\A[\x20-\x5b\x5d-\x7e]+\z/', $bytes) === 1 && ! self::looksLikeDrive($bytes)) {
            return $bytes;
        }
        $name = '';
        foreach (self::pieces($bytes) as $piece) {
            $plain = strlen($piece) > 1
                ? preg_match(self::HELD, $piece) !== 1
                : preg_match('/[\x20-\x5b\x5d-\x7e]/', $piece) === 1;
            $name .= $plain ? $piece : implode('', array_map(self::hold(...), str_split($piece)));
        }

        return self::looksLikeDrive($name) ? $name[0].self::hold(':') : $name;
    }

    /** The bytes to send for a name or a path. */
    public static function toWire(string $text): string
    {
        return (string) preg_replace_callback(
            self::HELD,
            static fn (array $match): string => chr((ord($match[0][2]) - 0xB8) * 64 + ord($match[0][3]) - 0x80),
            $text,
        );
    }

    /** Whether the text holds bytes that are no text; such names cannot come from people or packages. */
    public static function isHolding(string $text): bool
    {
        return preg_match(self::HELD, $text) === 1;
    }

    /** "C:" would turn the path that goes on behind it into one of another system. */
    private static function looksLikeDrive(string $name): bool
    {
        return preg_match('/\A[A-Za-z]:\z/', $name) === 1;
    }

    private static function hold(string $byte): string
    {
        return mb_chr(self::FIRST + ord($byte), 'UTF-8');
    }

    /** @return list<string> characters of valid UTF-8 (RFC 3629), and single bytes between them */
    private static function pieces(string $bytes): array
    {
        preg_match_all(
            '/[\x00-\x7f]|[\xc2-\xdf][\x80-\xbf]|\xe0[\xa0-\xbf][\x80-\xbf]|'
            .'[\xe1-\xec\xee\xef][\x80-\xbf]{2}|\xed[\x80-\x9f][\x80-\xbf]'
                .'|\xf0[\x90-\xbf][\x80-\xbf]{2}|[\xf1-\xf3][\x80-\xbf]{3}|\xf4[\x80-\x8f][\x80-\xbf]{2}|[\x80-\xff]/s',
            $bytes,
            $match,
        );

        return $match[0];
    }
}
