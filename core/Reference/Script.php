<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** Imports of a module and the source map of a script; what a script computes is not known and not guessed. */
final class Script
{
    /** What is never closed is read once: a template to the end, a text to the end of its line. */
    private const TOKENS = '~//[^\n]*|/\*.*?(?:\*/|\z)|`(?:[^`\\\\]|\\\\.)*+`?+'
        .'|\b(?:import|export)\b(?:(?:(?!\b(?:import|export|from)\b)[\s\w$*{},])*+\bfrom)?+\s*+'
        .'(?:\(\s*+)?+(?:"([^"\n]*+)"|\'([^\'\n]*+)\')'
        .'|"(?:[^"\\\\\n]|\\\\.)*+"?+|\'(?:[^\'\\\\\n]|\\\\.)*+\'?+~s';

    public static function scan(Document $document, string $script, int $offset = 0): void
    {
        foreach (Tokens::find(self::TOKENS, $script) as $token) {
            $found = isset($token[1][0]) ? $token[1] : $token[2] ?? [null, 0];
            // A bare name ("htmx") is resolved by an import map or a bundler, not by its place.
            if ($found[0] !== null && preg_match('~^(?:\.{0,2}/|[a-z][a-z\d+.-]*:)~i', $found[0]) === 1) {
                $document->add(new Reference(
                    ReferenceKind::Load,
                    'module import',
                    $found[0],
                    $offset + $found[1],
                    strlen($found[0]),
                ));
            }
        }
        self::beginnings($document, $script);
        self::sourceMap($document, $script, $offset);
    }

    /** Texts that end as names do to which a number is added: the places of a page may be made by a script. */
    public static function beginnings(Document $document, string $script): void
    {
        preg_match_all('~["\'`]#?([A-Za-z][\w-]{0,40}[-_])(?:["\'`]|\$\{)~', $script, $match);
        $document->beginnings += array_fill_keys($match[1], true);
    }

    /** Of scripts and style sheets: the last line that names one. Asked for by developers only. */
    public static function sourceMap(Document $document, string $text, int $offset = 0): void
    {
        $at = strrpos($text, 'sourceMappingURL=');
        if (
            $at !== false
            && preg_match(
                '~\G(?<=[#@]\s)?sourceMappingURL=([^\s\'"*]+)~',
                $text,
                $match,
                PREG_OFFSET_CAPTURE,
                $at,
            ) === 1
        ) {
            [$value, $place] = $match[1];
            $document->add(new Reference(ReferenceKind::Link, 'source map', $value, $offset + $place, strlen($value)));
        }
    }
}
