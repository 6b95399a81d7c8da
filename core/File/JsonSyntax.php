<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** The place in a text from which it is no JSON (RFC 8259); PHP itself tells only that it does. */
final class JsonSyntax
{
    /** Numbers, strings and words as one, so that what stands alone is told as a whole. */
    private const TOKEN = '/\G(?:[{}\[\]:,]|"(?:[^"\\\\\x00-\x1f]|\\\\(?:["\\\\\/bfnrt]|u[0-9a-fA-F]{4}))*"'
        .'|-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?(?![\w.])|(?:true|false|null)(?!\w))/';

    /** @return list<TextMistake> the first one */
    public static function mistakes(string $text): array
    {
        $open = [];
        $expects = 'value';
        $at = 0;
        while (true) {
            $at += strspn($text, " \t\r\n", $at);
            $token = self::token($text, $at);
            if ($token === '' || $expects === 'end') {
                break;
            }
            $next = self::next($token, $expects, $open);
            if ($next === null) {
                break;
            }
            $expects = $next;
            $at += strlen($token);
        }
        if ($at === strlen($text) && $expects === 'end') {
            return [];
        }
        $line = substr_count(substr($text, 0, $at), "\n") + 1;
        $found = $at >= strlen($text) ? 'the text ends' : 'there is “'.mb_scrub(mb_strcut($text, $at, 20)).'”';

        return [new TextMistake($line, match ($expects) {
            'end' => 'Behind the end of it '.$found,
            'value', 'value or ]' => 'Where a value should stand, '.$found,
            'name', 'name or }' => 'Where a name in quotation marks should stand, '.$found,
            ':' => 'Where a colon should stand, '.$found,
            default => 'Where a comma or the end should stand, '.$found,
        })];
    }

    /** "" where there is none. */
    private static function token(string $text, int $at): string
    {
        $found = preg_match(self::TOKEN, $text, $match, 0, $at);

        return $found === 1 ? $match[0] : '';
    }

    /**
     * @param  list<string>  $open  brackets that are open
     * @return string|null what is expected behind the token; null where it may not stand here
     */
    private static function next(string $token, string $expects, array &$open): ?string
    {
        $isValue = in_array($expects, ['value', 'value or ]'], true);
        $isName = in_array($expects, ['name', 'name or }'], true);
        switch ($token) {
            case '{':
            case '[':
                if (! $isValue) {
                    return null;
                }
                $open[] = $token;

                return $token === '{' ? 'name or }' : 'value or ]';
            case '}':
            case ']':
                $isEnd = $expects === ', or end' || $expects === ($token === '}' ? 'name or }' : 'value or ]');
                if (! $isEnd || array_pop($open) !== ($token === '}' ? '{' : '[')) {
                    return null;
                }

                return $open === [] ? 'end' : ', or end';
            case ':':
                return $expects === ':' ? 'value' : null;
            case ',':
                $follows = end($open) === '{' ? 'name' : 'value';

                return $expects === ', or end' ? $follows : null;
        }
        if ($isName) {
            return $token[0] === '"' ? ':' : null;
        }
        if (! $isValue) {
            return null;
        }

        return $open === [] ? 'end' : ', or end';
    }
}
