<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

/**
 * How hard a typed password is to guess, in bits; a lower bound in the spirit of NIST SP 800-63B: length and variety
 * count, repeats, runs of neighbours and well-known stems do not.
 */
final readonly class PasswordStrength
{
    public const MINIMUM_BITS = 60;

    private const STEMS = ['password', 'passwort', 'welcome', 'letmein', 'qwerty', 'admin', 'summer', 'winter', 'changeme', 'secret', '12345'];

    public static function bits(#[\SensitiveParameter] string $password): int
    {
        $lower = mb_strtolower($password);
        foreach (self::STEMS as $stem) {
            // A known stem is worth one guessable character, wherever it stands.
            $lower = str_replace($stem, '', $lower, $found);
            $password = $found > 0 ? $lower : $password;
        }
        $characters = mb_str_split($password);
        $effective = 0.0;
        $previous = null;
        $seen = [];
        foreach ($characters as $character) {
            $step = $previous === null ? null : mb_ord($character) - mb_ord($previous);
            $effective += match (true) {
                $step === 0 => 0.1,
                $step === 1, $step === -1 => 0.25,
                isset($seen[$character]) => 0.75,
                default => 1.0,
            };
            $seen[$character] = true;
            $previous = $character;
        }

        return (int) floor($effective * log(max(2, self::alphabet($password)), 2));
    }

    private static function alphabet(#[\SensitiveParameter] string $password): int
    {
        return (preg_match('/[a-z]/', $password) === 1 ? 26 : 0)
            + (preg_match('/[A-Z]/', $password) === 1 ? 26 : 0)
            + (preg_match('/[0-9]/', $password) === 1 ? 10 : 0)
            + (preg_match('/[^a-zA-Z0-9]/', $password) === 1 ? 33 : 0);
    }
}
