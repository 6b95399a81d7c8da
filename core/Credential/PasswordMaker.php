<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

use Random\Randomizer;

/** Makes passwords. Many hosts ask for a small letter, a capital and a digit, so there is always one of each. */
final readonly class PasswordMaker
{
    private const DIGITS = 8;

    private const CAPITALS = 24;

    private const SMALL = 24;

    public function __construct(private Randomizer $random = new Randomizer)
    {
    }

    public function make(PasswordKind $kind = PasswordKind::Readable): Secret
    {
        do {
            $signs = '';
            for ($place = 0; $place < $kind->length(); $place++) {
                $signs .= $kind->alphabet()[$this->random->getInt(0, strlen($kind->alphabet()) - 1)];
            }
        } while (
            preg_match('/[0-9]/', $signs) !== 1
            || preg_match('/[a-z]/', $signs) !== 1
            || preg_match('/[A-Z]/', $signs) !== 1
        );

        return new Secret($kind->group() === null ? $signs : implode('-', str_split($signs, $kind->group())));
    }

    /** What choosing one is worth: even over all that have each of the three. */
    public static function bits(PasswordKind $kind = PasswordKind::Readable): int
    {
        $all = strlen($kind->alphabet());
        $without = static fn (int ...$classes): float => (1 - array_sum($classes) / $all) ** $kind->length();
        $share = 1
            - $without(self::DIGITS)
            - $without(self::CAPITALS)
            - $without(self::SMALL)
            + $without(self::DIGITS, self::CAPITALS)
            + $without(self::DIGITS, self::SMALL)
            + $without(self::CAPITALS, self::SMALL)
            - $without(self::DIGITS, self::CAPITALS, self::SMALL);

        return (int) floor($kind->length() * log($all, 2) + log($share, 2));
    }
}
