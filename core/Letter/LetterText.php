<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** A letter as lines of text; what was copied from HTML mail becomes what its reader saw. */
final class LetterText
{
    private const BLOCKS = 'p|div|br|tr|li|ul|ol|table|h[1-6]|hr|section|article|header|footer|blockquote|pre|dt|dd|dl|tbody|thead';

    /** @return string lines, cells of a table with tabs between them */
    public static function of(string $pasted): string
    {
        $text = mb_scrub($pasted, 'UTF-8');
        if (preg_match('~<\s*(?:'.self::BLOCKS.'|td|span|a|b|strong|html|body)\b[^>]*>~i', $text) === 1) {
            $text = (string) preg_replace('~<(script|style|head)\b.*?</\1\s*>~is', '', $text);
            $text = (string) preg_replace('/\s+/', ' ', $text);
            $text = (string) preg_replace('~</\s*t[dh]\s*>\s*<\s*t[dh]\b[^>]*>~i', "\t", $text);
            $text = (string) preg_replace('~</?\s*(?:'.self::BLOCKS.')\b[^>]*>~i', "\n", $text);
            $text = html_entity_decode(strip_tags($text), ENT_QUOTES | ENT_HTML5, 'UTF-8');
        }
        $text = (string) preg_replace('/\r\n?|\x{2028}|\x{2029}/u', "\n", $text);

        return trim((string) preg_replace("/\n{3,}/", "\n\n", $text), "\n");
    }
}
