<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/**
 * References in a style sheet: url(), @import and image-set(), outside comments and other strings (CSS Syntax Level 3,
 * 4.3).
 */
final class Css
{
    /** Comments and strings are passed over, so that what stands in them is none; escapes are kept together. */
    private const TOKENS = '~/\*.*?(?:\*/|\z)'
        .'|@import\s*+(?:url\(\s*+)?+(?:"((?:[^"\\\\\n]|\\\\.)*+)"|\'((?:[^\'\\\\\n]|\\\\.)*+)\'|([^\s"\'();]++))'
        .'|\burl\(\s*+(?:"((?:[^"\\\\\n]|\\\\.)*+)"|\'((?:[^\'\\\\\n]|\\\\.)*+)\'|((?:[^\s"\'()\\\\]|\\\\.)*+))\s*+\)'
        .'|image-set\((?:[^()"\']|"[^"]*+"|\'[^\']*+\'|\([^()]*+\))*+\)'
        .'|"(?:[^"\\\\]|\\\\.)*+"|\'(?:[^\'\\\\]|\\\\.)*+\'~is';

    /** @param  int  $offset  where the style sheet begins in its document */
    public static function scan(Document $document, string $css, int $offset = 0): void
    {
        if (preg_match('~url\(|@import|image-set~i', $css) !== 1) {
            return;
        }
        foreach (Tokens::find(self::TOKENS, $css) as $token) {
            if (stripos((string) $token[0][0], 'image-set') === 0) {
                self::imageSet($document, (string) $token[0][0], $offset + $token[0][1]);

                continue;
            }
            foreach ([1, 2, 3, 4, 5, 6] as $group) {
                if (($token[$group][0] ?? null) !== null) {
                    self::add(
                        $document,
                        $group < 4 ? 'css import' : 'css url',
                        $token[$group][0],
                        $offset + $token[$group][1],
                    );
                }
            }
        }
    }

    /** Strings in it are addresses too, but those of type(). */
    private static function imageSet(Document $document, string $set, int $offset): void
    {
        preg_match_all(
            '~type\([^)]*+\)|url\(\s*+["\']?([^"\')]*+)["\']?\s*+\)|"([^"]*+)"|\'([^\']*+)\'~i',
            $set,
            $found,
            PREG_SET_ORDER | PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL,
        );
        foreach ($found as $one) {
            foreach ([1, 2, 3] as $group) {
                if (($one[$group][0] ?? null) !== null) {
                    self::add($document, 'css image-set', $one[$group][0], $offset + $one[$group][1]);
                }
            }
        }
    }

    private static function add(Document $document, string $how, string $raw, int $offset): void
    {
        $value = str_contains($raw, '\\') ? self::unescape($raw) : $raw;
        $document->add(new Reference(ReferenceKind::Load, $how, trim($value), $offset, strlen($raw)));
    }

    /** CSS Syntax Level 3, 4.3.7. */
    private static function unescape(string $raw): string
    {
        return (string) preg_replace_callback(
            '/\\\\(?:([0-9a-f]{1,6})\s?|(\n)|(.))/isu',
            static fn (array $match): string => match (true) {
                $match[1] !== '' => mb_chr((int) hexdec($match[1])) ?: "\u{FFFD}",
                $match[2] !== '' => '',
                default => $match[3],
            },
            $raw,
        );
    }
}
