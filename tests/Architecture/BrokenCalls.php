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

    /** Before a bracket of their own kind, whose lines are somebody's choice. */
    private const NO_CALL = [
        T_IF, T_ELSEIF, T_WHILE, T_FOR, T_FOREACH, T_SWITCH, T_MATCH, T_CATCH, T_DECLARE, T_USE, T_RETURN, T_ECHO,
        T_DOUBLE_ARROW, T_THROW,
    ];

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
        if ($tokens[$before]->is(self::NO_CALL)) {
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
