<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/**
 * Names of folders that nobody guesses: whoever has the address may fetch what lies in them, nobody else finds it.
 *
 * More than 128 random bits, in letters and digits that are told apart when they are read, in groups.
 */
final class PrivateName
{
    private const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

    private const GROUPS = 3;

    private const GROUP = 9;

    /** @param  string  $words  that stand in front, so that people know what it is; "" for none */
    public static function fromWords(string $words): string
    {
        do {
            $secret = implode('-', array_map(self::group(...), range(1, self::GROUPS)));
        } while (! self::isOne($secret));

        return $words === '' ? $secret : "$words-$secret";
    }

    public static function isOne(string $name): bool
    {
        return preg_match('/(?:\A|-)'.self::secret().'\z/', $name) === 1;
    }

    /** The words in front. */
    public static function words(string $name): string
    {
        return (string) preg_replace('/(?:\A|-)'.self::secret().'\z/', '', $name);
    }

    private static function group(): string
    {
        $letters = '';
        for ($at = 0; $at < self::GROUP; $at++) {
            $letters .= self::LETTERS[random_int(0, strlen(self::LETTERS) - 1)];
        }

        return $letters;
    }

    /** With a digit somewhere, so that three long words are none. */
    private static function secret(): string
    {
        $group = '['.self::LETTERS.']{'.self::GROUP.'}';

        return '(?=[a-z-]*\d)'.implode('-', array_fill(0, self::GROUPS, $group));
    }
}
