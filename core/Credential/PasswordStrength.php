<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

/**
 * The strength of a typed password in bits: the cheapest way to put it together from what guessers try, which is words
 * (with capitals, signs for letters, or backwards), repeats, runs of neighbours, dates, and single signs for the rest.
 * An estimate in the spirit of NIST SP 800-63B, appendix A, and never more than trying all signs would take.
 */
final readonly class PasswordStrength
{
    public const MINIMUM_BITS = 60;

    private const LONGEST = 100;

    private const LONGEST_WORD = 24;

    private const SIGNS_FOR_LETTERS = [
        '4' => 'a',
        '@' => 'a',
        '8' => 'b',
        '3' => 'e',
        '6' => 'g',
        '1' => 'i',
        '!' => 'i',
        '0' => 'o',
        '5' => 's',
        '$' => 's',
        '7' => 't',
        '2' => 'z',
    ];

    private const ROWS = [
        'qwertyuiop',
        'qwertzuiop',
        'asdfghjkl',
        'zxcvbnm',
        'yxcvbnm',
        '1234567890',
        'qazwsxedcrfv',
        '1qaz2wsx3edc',
    ];

    public function __construct(private CommonWords $words)
    {
    }

    /** @param  list<string>  $own  what anybody would try first: names of the client, the login, the domain */
    public function bits(#[\SensitiveParameter] string $password, array $own = []): int
    {
        $words = $own === [] ? $this->words : $this->words->startingWith($own);
        $signs = array_slice(mb_str_split($password), 0, self::LONGEST);
        $each = log(max(2, self::alphabet($password)), 2);
        $best = [0.0];
        for ($end = 1; $end <= count($signs); $end++) {
            $best[$end] = $best[$end - 1] + $each;
            for ($from = max(0, $end - self::LONGEST_WORD); $from <= $end - 2; $from++) {
                $part = implode('', array_slice($signs, $from, $end - $from));
                $cost = self::pattern($part) ?? self::word($part, $words);
                if ($cost !== null) {
                    $best[$end] = min($best[$end], $best[$from] + min($cost, ($end - $from) * $each));
                }
            }
            $best[$end] = min($best[$end], self::repeated($signs, $end, $best));
        }

        return (int) floor($best[count($signs)]);
    }

    /** In a word, beside the figure. */
    public static function inWords(int $bits): string
    {
        return match (true) {
            $bits < 28 => 'guessed at once',
            $bits < 45 => 'weak',
            $bits < self::MINIMUM_BITS => 'not enough',
            $bits < 80 => 'good',
            default => 'strong',
        };
    }

    /** A word, its letters perhaps capital, replaced by signs, or backwards; null when it is none. */
    private static function word(#[\SensitiveParameter] string $part, CommonWords $words): ?float
    {
        if (mb_strlen($part) < 3) {
            return null;
        }
        $small = mb_strtolower($part);
        $plain = strtr($small, self::SIGNS_FOR_LETTERS);
        $capitals = match (true) {
            $small === $part => 0.0,
            mb_strtolower(mb_substr($part, 1)) === mb_substr($part, 1) || mb_strtoupper($part) === $part => 1.0,
            default => 3.0,
        };
        $found = null;
        foreach ([[$small, 0.0], [$plain, 2.0], [strrev($small), 1.0], [strrev($plain), 3.0]] as [$spelling, $extra]) {
            $rank = $words->rank($spelling);
            if ($rank !== null) {
                $found = min($found ?? INF, log($rank + 1, 2) + $extra + $capitals);
            }
        }

        return $found;
    }

    /** A run of neighbours, on the keyboard or in the alphabet, or a date; null when it is none. */
    private static function pattern(#[\SensitiveParameter] string $part): ?float
    {
        $small = strtolower($part);
        $length = strlen($small);
        if ($length >= 3 && strlen($part) === mb_strlen($part)) {
            $step = ord($small[1]) - ord($small[0]);
            $run = abs($step) <= 2;
            for ($at = 2; $run && $at < $length; $at++) {
                $run = ord($small[$at]) - ord($small[$at - 1]) === $step;
            }
            if ($run) {
                return log(26 * 5 * $length, 2);
            }
            foreach (self::ROWS as $row) {
                if (str_contains($row, $small) || str_contains(strrev($row), $small)) {
                    return log(count(self::ROWS) * 2 * 10 * $length, 2);
                }
            }
        }

        return match (1) {
            preg_match('/\A(?:19|20)\d\d\z/', $part) => log(150, 2),
            preg_match('/\A(?:[0-2]?\d|3[01])([.\/-]?)(?:0?\d|1[0-2])\1(?:(?:19|20)\d\d|\d\d)\z/', $part),
            preg_match('/\A(?:19|20)\d\d([.\/-]?)(?:0\d|1[0-2])\1(?:[0-2]\d|3[01])\z/', $part) => log(366 * 150 * 4, 2),
            default => null,
        };
    }

    /**
     * What it costs when its last signs are one block several times over.
     *
     * @param  list<string>  $signs
     * @param  array<int, float>  $best  of everything shorter
     */
    private static function repeated(#[\SensitiveParameter] array $signs, int $end, array $best): float
    {
        $cheapest = INF;
        for ($block = 1; $block * 2 <= $end; $block++) {
            $times = 1;
            while (
                $end - $block * ($times + 1) >= 0
                && array_slice($signs, $end - $block * ($times + 1), $block) ===
                    array_slice($signs, $end - $block, $block)
            ) {
                $times++;
                if ($block > 1 || $times > 2) {
                    $cheapest = min($cheapest, $best[$end - $block * ($times - 1)] + log($times, 2) + 1);
                }
            }
        }

        return $cheapest;
    }

    private static function alphabet(#[\SensitiveParameter] string $password): int
    {
        return (preg_match('/[a-z]/', $password) === 1 ? 26 : 0)
            + (preg_match('/[A-Z]/', $password) === 1 ? 26 : 0)
            + (preg_match('/[0-9]/', $password) === 1 ? 10 : 0)
            + (preg_match('/[^a-zA-Z0-9]/', $password) === 1 ? 33 : 0);
    }
}
