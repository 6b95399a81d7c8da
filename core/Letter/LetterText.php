<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** A letter as lines of text; what was copied from HTML mail or written in Markdown becomes what its reader saw. */
final class LetterText
{
    private const BLOCKS = 'p|div|br|tr|li|ul|ol|table|h[1-6]|hr|section|article|'
        .'header|footer|blockquote|pre|dt|dd|dl|tbody|thead';

    /** Characters, after which a line ends at the next blank. */
    private const LONGEST_LINE = 1000;

    /** @return string lines, cells of a table with tabs between them */
    public static function fromPasted(string $pasted): string
    {
        $text = mb_scrub($pasted, 'UTF-8');
        if (preg_match('~<\s*(?:'.self::BLOCKS.'|td|span|a|b|strong|html|body)\b[^>]*>~i', $text) === 1) {
            $text = (string) preg_replace('~<(script|style|head)\b.*?</\1\s*>~is', '', $text);
            $text = (string) preg_replace('/\s+/', ' ', $text);
            $text = (string) preg_replace('~</\s*t[dh]\s*>\s*<\s*t[dh]\b[^>]*>~i', "\t", $text);
            $text = (string) preg_replace(
                '~</\s*(?:span|b|strong|label|font)\s*>\s+<\s*(?:span|b|strong|code|font|i|em|tt)\b[^>]*>~i',
                '  ',
                $text,
            );
            $text = (string) preg_replace('~</?\s*(?:'.self::BLOCKS.')\b[^>]*>~i', "\n", $text);
            $text = html_entity_decode(strip_tags($text), ENT_QUOTES | ENT_HTML5, 'UTF-8');
        } elseif (self::hasEntities($text)) {
            $text = html_entity_decode($text, ENT_QUOTES | ENT_HTML5, 'UTF-8');
        }
        $text = (string) preg_replace('/\r\n?|\x{2028}|\x{2029}/u', "\n", $text);
        if (self::isMarkdown($text)) {
            $text = self::withoutMarkdown($text);
        }

        // No one writes such lines; what looks around in each would take time with their square.
        $text = (string) preg_replace('/([^\n]{'.self::LONGEST_LINE.'}[^\n ]{0,200}) /u', "$1\n", $text);

        return trim((string) preg_replace("/\n{3,}/", "\n\n", $text), "\n");
    }

    /** @return list<string> what was undone to come to that text, for the one who pasted it */
    public static function undone(string $pasted): array
    {
        $html = preg_match('~<\s*(?:'.self::BLOCKS.'|td|span|a|b|strong|html|body)\b[^>]*>~i', $pasted) === 1;
        $undone = [];
        ! $html || ($undone[] = 'HTML was turned into text');
        $html || ! self::hasEntities($pasted) || ($undone[] = 'HTML entities were turned into characters');
        ! self::isMarkdown($pasted) || ($undone[] = 'Markdown marks were taken out');
        preg_match('/[\x{200B}-\x{200F}\x{2060}\x{FEFF}\x{00AD}]/u', mb_scrub($pasted)) !== 1
            || ($undone[] = 'there are characters in it that nobody sees');
        preg_match('/[\x{202A}-\x{202E}\x{2066}-\x{2069}]/u', mb_scrub($pasted)) !== 1
            || ($undone[] = 'there are marks of direction in it, which change what is seen');
        preg_match('/[\x{00A0}\x{202F}]/u', mb_scrub($pasted)) !== 1 || ($undone[] = 'no-break blanks count as blanks');

        return $undone;
    }

    private static function hasEntities(string $text): bool
    {
        return preg_match(
            '/&(?:nbsp|amp|quot|lt|gt|#\d{2,5}|#x[0-9a-f]{2,5}|[aeiou](?:uml|acute|grave|circ)|szlig|ntilde|ccedil);/i',
            $text,
        ) === 1;
    }

    /**
     * Marks that Markdown alone has: bold, code, headings, links with their address, rows of dashes under a table's
     * head.
     */
    private static function isMarkdown(string $text): bool
    {
        return preg_match(
            '/\*\*[^*\n]{1,80}\*\*|^#{1,4} \S|\[[^\]\n]+\]\([^)\n]+\)|^[ \t]*\|?(?:\s*:?-{3,}:?\s*\|)+|`[^`\n]+`/m',
            $text,
        ) === 1;
    }

    private static function withoutMarkdown(string $text): string
    {
        $text = (string) preg_replace('/^[ \t]*\|?(?:[ \t]*:?-{2,}:?[ \t]*\|)+[ \t]*:?-*:?[ \t\r]*$\n?/m', '', $text);
        $text = (string) preg_replace('/\*\*([^*\n]{1,200}?)\*\*/', '$1', $text);
        $text = (string) preg_replace('/`([^`\n]+)`/', '$1', $text);
        $text = (string) preg_replace('/(?<!!)\[([^\]\n]+)\]\([^)\n]+\)/', '$1', $text);

        return (string) preg_replace('/^#{1,4} /m', '', $text);
    }
}
