<?php

declare(strict_types=1);

namespace Tests\Architecture;

/**
 * Calls and parameters that stand one a line although one line has room for them. Lists that hold comments, functions
 * with a body, texts of several lines or arrays of several lines stay as they are, and so do promoted properties.
 */
final class BrokenCalls
{
    private const KEEP = [T_COMMENT, T_DOC_COMMENT, T_START_HEREDOC, T_MATCH, T_ATTRIBUTE];

    /** What stands before the bracket of a call or of parameters, beside another bracket. */
    private const CALLED = [
        T_STRING,
        T_NAME_QUALIFIED,
        T_NAME_FULLY_QUALIFIED,
        T_VARIABLE,
        T_FUNCTION,
        T_FN,
        T_STATIC,
        T_ISSET,
        T_CLASS,
    ];

    /** The code with the longest call of each line that is too long broken, one argument a line. */
    public static function split(string $code, int $columns): string
    {
        do {
            $before = $code;
            $code = self::splitOne($code, $columns);
        } while ($code !== $before);

        return $code;
    }

    private static function splitOne(string $code, int $columns): string
    {
        $tokens = \PhpToken::tokenize($code);
        $lines = explode("\n", $code);
        $open = [];
        $longest = [0, 0, 0];
        foreach ($tokens as $at => $token) {
            if (in_array($token->text, ['(', '[', '{', '#[', '${'], true) || $token->is(T_CURLY_OPEN)) {
                $open[] = $at;
            } elseif (in_array($token->text, [')', ']', '}'], true)) {
                $begin = (int) array_pop($open);
                $isLong = $token->text === ')'
                    && $tokens[$begin]->line === $token->line
                    && mb_strlen($lines[$token->line - 1]) > $columns
                    && $at - $begin > 1
                    && self::isCall($tokens, $begin)
                    && ! $tokens[$begin - 2]->is(T_FN);
                if ($isLong && $token->pos - $tokens[$begin]->pos > $longest[0]) {
                    $longest = [$token->pos - $tokens[$begin]->pos, $begin, $at];
                }
            }
        }
        [$length, $begin, $end] = $longest;

        return $length === 0 ? $code : self::splitAt($code, $tokens, $begin, $end);
    }

    /** @param  array<int, \PhpToken>  $tokens */
    private static function splitAt(string $code, array $tokens, int $begin, int $end): string
    {
        preg_match('/\A */', explode("\n", $code)[$tokens[$begin]->line - 1], $indent);
        $parts = [''];
        $depth = 0;
        for ($at = $begin + 1; $at < $end; $at++) {
            $text = $tokens[$at]->text;
            $depth += match (true) {
                in_array($text, ['(', '[', '{', '#[', '${'], true), $tokens[$at]->is(T_CURLY_OPEN) => 1,
                in_array($text, [')', ']', '}'], true) => -1,
                default => 0,
            };
            if ($depth === 0 && $text === ',') {
                $parts[] = '';
            } else {
                $parts[count($parts) - 1] .= $text;
            }
        }
        $broken = "(\n";
        foreach ($parts as $part) {
            $broken .= "$indent[0]    ".trim($part).",\n";
        }
        $from = $tokens[$begin]->pos;

        return substr($code, 0, $from)."$broken$indent[0])".substr($code, $tokens[$end]->pos + 1);
    }

    /** The code with each such call joined, the inner ones first. */
    public static function joined(string $code, int $columns): string
    {
        do {
            $before = $code;
            $code = self::joinOne($code, $columns);
        } while ($code !== $before);

        return $code;
    }

    /** All that can be joined without touching another of them. */
    private static function joinOne(string $code, int $columns): string
    {
        $tokens = \PhpToken::tokenize($code);
        $open = [];
        $done = '';
        $from = 0;
        foreach ($tokens as $at => $token) {
            if (in_array($token->text, ['(', '[', '{', '#[', '${'], true) || $token->is(T_CURLY_OPEN)) {
                $open[] = $at;
            } elseif (in_array($token->text, [')', ']', '}'], true)) {
                $begin = (int) array_pop($open);
                $line = $token->text === ')' && $begin >= $from && self::isCall($tokens, $begin)
                    ? self::line($tokens, $begin, $at)
                    : null;
                $start = (int) strrpos(substr($code, 0, $tokens[$begin]->pos), "\n");
                // What stands in a line that was joined just now is looked at again with all of it.
                if (
                    $line !== null
                    && ($from === 0 || $start >= $tokens[$from]->pos)
                    && mb_strlen(self::whole($code, $tokens[$begin]->pos, $token->pos, $line)) <= $columns
                ) {
                    $done .= substr($code, $tokens[$from]->pos, $tokens[$begin]->pos - $tokens[$from]->pos).$line;
                    $from = $at + 1;
                }
            }
        }

        return $from >= count($tokens) ? $done : $done.substr($code, $tokens[$from]->pos);
    }

    /** @param  array<int, \PhpToken>  $tokens */
    private static function isCall(array $tokens, int $begin): bool
    {
        $before = $begin - 1;
        while ($before > 0 && $tokens[$before]->is(T_WHITESPACE)) {
            $before--;
        }
        if (! $tokens[$before]->is(self::CALLED) && ! in_array($tokens[$before]->text, [')', ']'], true)) {
            return false;
        }

        return ! ($tokens[$before]->is(T_STRING) && $tokens[$before]->text === '__construct'
            && $tokens[$before - 2]->is(T_FUNCTION));
    }

    /**
     * The bracket in one line, where it is broken after it, after commas and before its end, and nowhere else.
     *
     * @param  array<int, \PhpToken>  $tokens
     */
    private static function line(array $tokens, int $begin, int $end): ?string
    {
        $line = '';
        $isBroken = false;
        for ($at = $begin; $at <= $end; $at++) {
            $token = $tokens[$at];
            if ($token->is(self::KEEP) || $token->text === '{') {
                return null;
            }
            if (! $token->is(T_WHITESPACE) || ! str_contains($token->text, "\n")) {
                if (str_contains($token->text, "\n")) {
                    return null;
                }
                $line .= $token->text;

                continue;
            }
            [$last, $next] = [$tokens[$at - 1]->text, $tokens[$at + 1]->text];
            $isOwn = $at === $begin + 1 || $at === $end - 1;
            if (! $isOwn && $last !== ',') {
                return null;
            }
            $isBroken = $isBroken || $at === $begin + 1;
            $line = match (true) {
                $next === ')' && $last === ',' => substr($line, 0, -1),
                $at === $begin + 1 || $next === ')' => $line,
                default => "$line ",
            };
        }

        return $isBroken ? $line : null;
    }

    /** All of the line that it would stand in. */
    private static function whole(string $code, int $begin, int $end, string $line): string
    {
        $start = (int) strrpos(substr($code, 0, $begin), "\n") + 1;
        $rest = substr($code, $end + 1, (int) strpos($code."\n", "\n", $end) - $end - 1);

        return substr($code, $start, $begin - $start).$line.$rest;
    }
}
